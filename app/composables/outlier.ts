import { RecordsOfStandard } from '#core/http/records'
import type { JobView } from '#core/http/job'
import type { LedgerEvent } from '#core/ledger/events'
import type { JobState } from '#core/ledger/reduce'
import { standardOf } from '#core/rear/records'
import { figureOfEvent, recordRule } from '#core/records/chapters'
import { questionFor } from '#core/records/question'

/** Words that question a figure far from what this shop has seen on such bikes; null when it is like them, or out of reach. */
export function useOutlier(state: Ref<JobState>, record: Ref<JobView | null>) {
  const seen = shallowRef<RecordsOfStandard | null>(null)
  onMounted(() => {
    watch(
      () => state.value.rear.parts && standardOf(state.value.rear.parts),
      async (standard, _was, onCleanup) => {
        if (!standard) return
        let overtaken = false
        onCleanup(() => {
          overtaken = true
        })
        const asked = await ask(RecordsOfStandard, `/api/standards/records/${encodeURIComponent(standard)}`)
        if (!overtaken) seen.value = asked.is === 'done' ? asked.value : null
      },
      { immediate: true },
    )
  })
  return (event: LedgerEvent): string | null => {
    const told = figureOfEvent(event)
    const found = told && seen.value?.figures.find(f => f.figure === told.figure)
    if (!told || !found) return null
    const frame = record.value?.bike.frameKind ?? null
    // a bike of a known frame is compared with such frames; one whose frame was not noted, with all
    const like =
      recordRule(told.figure)?.byFrame && frame ? found.frames.find(f => f.frame === frame)?.seen : found.seen
    return questionFor(told.figure, told.value, like)
  }
}
