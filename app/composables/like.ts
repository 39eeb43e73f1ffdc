import type { InjectionKey } from 'vue'
import type { RunName } from '#core/cable/housing'
import type { JobView } from '#core/http/job'
import type { LedgerEvent } from '#core/ledger/events'
import type { JobState } from '#core/ledger/reduce'
import type { Like } from '#core/records/like'
import { standardsAsked } from '#core/records/runs'
import { kept } from '~/stores/kept'

/** What this shop has seen on bikes like the one in hand. */
export type LikesHere = {
  /** Of one figure of what hangs on a run, the closest first. */
  of: (run: RunName, figure: string) => Like[]
  /** Under which standard that is kept. */
  standard: (run: RunName) => string
  /**
   * Words that question an entry far from what was seen on such bikes; null when it is like them, or nothing is known.
   */
  question: (event: LedgerEvent) => string | null
}
export const LIKE: InjectionKey<LikesHere> = Symbol('like')

/**
 * Looks up what was seen on bikes like this one as its parts are known: kept on the device, so that it is there offline
 * too. What compares is fetched when there is something to compare with: a shop that has recorded nothing waits for
 * none of it.
 */
export function useLike(state: Ref<JobState>, record: Ref<JobView | null>): LikesHere {
  const here = shallowRef<LikesHere | null>(null)
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
        const raw: unknown = await $fetch(`/api/standards/like?${query}`).catch(() => kept.like(query))
        if (overtaken) return
        if (!isSomething(raw)) return void (here.value = null)
        const { likesIn } = await import('~/composables/seenHere')
        const read = likesIn(raw, () => state.value, frame.value)
        if (read) void kept.keepLike(query, read.seen)
        if (!overtaken) here.value = read?.likes ?? null
      },
      { immediate: true },
    )
  })
  return {
    of: (run, figure) => here.value?.of(run, figure) ?? [],
    standard: run => here.value?.standard(run) ?? '',
    question: event => here.value?.question(event) ?? null,
  }
}

const isSomething = (raw: unknown): boolean =>
  typeof raw === 'object' && raw !== null && 'standards' in raw && (raw.standards as unknown[]).length > 0
