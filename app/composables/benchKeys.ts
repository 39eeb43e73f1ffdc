import { useEventListener } from '@vueuse/core'

/**
 * The keys of all benches, by what `KeyboardEvent.key` says, and what each means: the same on every one of them, so
 * that a hand need not look. A bench has those that it can use and no others. A foot pedal is a keyboard.
 */
export const KEY_MEANINGS = [
  { keys: ['1', '2', '3', '4', '5', '6', '7', '8'], shown: '1–8', means: 'the answers, in the order they lie' },
  { keys: ['0'], shown: '0', means: 'a whole pass, clean but for the gears marked' },
  { keys: ['ArrowLeft', 'ArrowRight'], shown: '←  →', means: 'aim a gear towards the spokes, the frame' },
  { keys: ['x'], shown: 'X', means: 'mark the aimed gear as not clean in the pass' },
  { keys: ['[', ']'], shown: '[  ]', means: 'wind the chosen screw one step in, out; Enter logs it' },
  { keys: ['b', 'h', 'l'], shown: 'B H L', means: 'choose barrel, H or L for the brackets' },
  { keys: ['r'], shown: 'R', means: 'where winding began to rub' },
  { keys: ['n'], shown: 'N', means: 'no rub found' },
  { keys: ['Enter'], shown: 'Enter', means: 'done as advised' },
  { keys: ['Backspace'], shown: '⌫', means: 'leave this advice: what else' },
  { keys: ['e'], shown: 'E', means: 'I did something else' },
  { keys: ['PageDown'], shown: 'Page down', means: 'on to the next stage' },
  { keys: ['Escape'], shown: 'Esc', means: 'leave it' },
  { keys: ['z'], shown: 'Z', means: 'take back' },
  { keys: ['?'], shown: '?', means: 'this list' },
] as const satisfies readonly { keys: readonly string[]; shown: string; means: string }[]
export type BenchKey = (typeof KEY_MEANINGS)[number]['keys'][number]
export type BenchKeys = Partial<Record<BenchKey, () => void>>

/** Keys for the answers of a bench, in the order they lie; what lies past the last key is touched. */
export const answerKeys = (answers: readonly (() => void)[]): BenchKeys =>
  Object.fromEntries(answers.slice(0, KEY_MEANINGS[0].keys.length).map((answer, i) => [String(i + 1), answer]))

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

  const act = (name: string) => keys()[(name.length === 1 ? name.toLowerCase() : name) as BenchKey]?.()
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
    if (!held && !keys()[known as BenchKey] && !/^[-+\d.,]$/.test(event.key)) return
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
