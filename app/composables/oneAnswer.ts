import { useTimeoutFn } from '@vueuse/core'

/** A finger that bounces, ms: an answer so soon after the last belongs to a question that nobody has read. */
const BOUNCE_MS = 300

/**
 * A bench's questions, answered one at a time: until the next one was there to be read, nothing answers it, by touch or
 * key.
 */
export function useOneAnswer<A extends unknown[]>(answer: (...told: A) => unknown) {
  const live = ref(true)
  const { start } = useTimeoutFn(() => (live.value = true), BOUNCE_MS, { immediate: false })
  function once(...told: A): void {
    if (!live.value) return
    live.value = false
    start()
    void answer(...told)
  }
  return { live: readonly(live), once }
}
