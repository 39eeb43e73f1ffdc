import type { InjectionKey } from 'vue'
import type { RunName } from '#core/cable/housing'
import { LikeHere } from '#core/http/records'
import type { JobView } from '#core/http/job'
import type { LedgerEvent } from '#core/ledger/events'
import type { JobState } from '#core/ledger/reduce'
import { figuresOfEvent, recordRule } from '#core/records/chapters'
import { likesOf, questionOfLikes, type Like } from '#core/records/like'
import { standardOfRun, standardsAsked } from '#core/records/runs'
import { kept } from '~/stores/kept'

/** What this shop has seen on bikes like the one in hand. */
export type LikesHere = {
  /** Of one figure of what hangs on a run, the closest first. */
  of: (run: RunName, figure: string) => Like[]
  /** Under which standard that is kept. */
  standard: (run: RunName) => string
  /** Words that question an entry far from what was seen on such bikes; null when it is like them, or nothing is known. */
  question: (event: LedgerEvent) => string | null
}
export const LIKE: InjectionKey<LikesHere> = Symbol('like')

/** Looks up what was seen on bikes like this one as its parts are known: kept on the device, so that it is there offline too. */
export function useLike(state: Ref<JobState>, record: Ref<JobView | null>): LikesHere {
  const here = shallowRef<LikeHere | null>(null)
  const frame = computed(() => record.value?.bike.frameKind ?? null)
  const asked = computed(() => {
    const to = new URLSearchParams(standardsAsked(state.value).map(s => ['standard', s]))
    if (frame.value) to.set('frame', frame.value)
    return String(to)
  })
  onMounted(() => {
    watch(
      () => record.value && asked.value,
      async (query, _was, onCleanup) => {
        if (!query) return
        let overtaken = false
        onCleanup(() => {
          overtaken = true
        })
        const told = await ask(LikeHere, `/api/standards/like?${query}`)
        if (told.is === 'done') void kept.keepLike(query, told.value)
        const now = told.is === 'done' ? told.value : ((await kept.like(query)) ?? null)
        if (!overtaken) here.value = now
      },
      { immediate: true },
    )
  })
  const standard = (run: RunName) => standardOfRun(state.value, run)
  const seen = (standard: string, figure: string): Like[] => {
    const rule = recordRule(figure)
    const of = here.value?.standards.find(s => s.standard === standard)?.figures.find(f => f.figure === figure)
    return rule ? likesOf(rule, standard, frame.value, of, here.value?.any.find(a => a.figure === figure)?.seen) : []
  }
  const question: LikesHere['question'] = event => {
    for (const { standard, figure, value } of figuresOfEvent(event, state.value)) {
      const words = questionOfLikes(figure, value, seen(standard, figure))
      if (words) return words
    }
    return null
  }
  return { of: (run, figure) => seen(standard(run), figure), standard, question }
}
