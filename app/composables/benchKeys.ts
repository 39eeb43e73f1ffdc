import { useEventListener } from '@vueuse/core'

/** Keys of a bench by what `KeyboardEvent.key` says; a foot pedal is a keyboard. */
export type BenchKeys = Record<string, () => void>

/** A caliper types its figure faster than any hand: keys this close together are a figure, not commands. */
const TYPED_MS = 30
/** What a caliper typed, for the field that waits for a figure. */
export const FIGURE_TYPED = 'ocho:figure'

declare global {
  interface WindowEventMap {
    [FIGURE_TYPED]: CustomEvent<number>
  }
}

/** Listens for keys while nobody types into a field and no dialog is open. */
export function useBenchKeys(keys: () => BenchKeys): void {
  let burst = ''
  let held: { name: string; at: number; timer: ReturnType<typeof setTimeout> } | null = null

  const act = (name: string) => keys()[name.length === 1 ? name.toLowerCase() : name]?.()
  /** One key alone is a command; several in a rush are a figure, whose Enter is swallowed with it. */
  function settle() {
    const typed = burst
    const name = held?.name ?? ''
    burst = ''
    held = null
    if (typed.length <= 1) act(name)
    else if (/^[-+]?\d*[.,]?\d+$/.test(typed))
      window.dispatchEvent(new CustomEvent(FIGURE_TYPED, { detail: Number(typed.replace(',', '.')) }))
  }

  useEventListener('keydown', (event: KeyboardEvent) => {
    const target = event.target as HTMLElement
    if (event.metaKey || event.ctrlKey || event.altKey || event.repeat) return
    if (target.closest('[role=dialog]') || (event.key !== 'Escape' && target.closest('input, textarea, select'))) return
    // a focused button answers Enter and space itself, but for the one that accepts the move
    if (
      (event.key === 'Enter' || event.key === ' ') &&
      !held &&
      target.closest('button, a') &&
      !target.closest('[data-test=accept]')
    )
      return
    // by the keys' own times: on a busy page two unhurried keys can arrive together
    if (held && event.timeStamp - held.at > TYPED_MS) {
      clearTimeout(held.timer)
      settle()
    }
    const known = event.key.length === 1 ? event.key.toLowerCase() : event.key
    if (!held && !keys()[known] && !/^[-+\d.,]$/.test(event.key)) return
    event.preventDefault()
    if (held) clearTimeout(held.timer)
    burst += event.key.length === 1 ? event.key : ''
    // within a rush, only figures count; its Enter ends it unheard
    held = {
      name: held && event.key === 'Enter' ? held.name : event.key,
      at: event.timeStamp,
      timer: setTimeout(settle, TYPED_MS),
    }
  })
}

/** A caliper types its figure into the line that waits for one. */
export const useFigureTyped = (take: (text: string) => void) =>
  useEventListener(FIGURE_TYPED, typed => take(String(typed.detail)))
