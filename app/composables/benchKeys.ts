import { useEventListener } from '@vueuse/core'

/** Keys of a bench by what `KeyboardEvent.key` says; a foot pedal is a keyboard. */
export type BenchKeys = Record<string, () => void>

/** A caliper types its figure faster than any hand: keys this close together are a figure, not commands. */
const TYPED_MS = 35

/** Listens for keys while nobody types into a field and no dialog is open. */
export function useBenchKeys(keys: () => BenchKeys): void {
  let last = 0
  useEventListener('keydown', (event: KeyboardEvent) => {
    const target = event.target as HTMLElement
    if (event.metaKey || event.ctrlKey || event.altKey || event.repeat) return
    if (target.closest('[role=dialog]') || (event.key !== 'Escape' && target.closest('input, textarea, select'))) return
    const now = event.timeStamp
    const fast = now - last < TYPED_MS
    last = now
    if (fast && event.key !== 'Escape') return void event.preventDefault()
    const act = keys()[event.key.length === 1 ? event.key.toLowerCase() : event.key]
    if (!act) return
    // a focused button answers Enter itself
    if (event.key === 'Enter' && target.closest('button, a') && !target.closest('[data-test=accept]')) return
    event.preventDefault()
    act()
  })
}
