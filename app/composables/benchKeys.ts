import { useEventListener } from '@vueuse/core'
import type { BenchKey } from '~/components/bench/keyMeanings'

export type { BenchKey } from '~/components/bench/keyMeanings'
export type BenchKeys = Partial<Record<BenchKey, () => void>>

/** Answers have the keys 1 to 8. */
const ANSWER_KEYS = 8
/** Keys for the answers of a bench, in the order they lie; what lies past the last key is touched. */
export const answerKeys = (answers: readonly (() => void)[]): BenchKeys =>
  Object.fromEntries(answers.slice(0, ANSWER_KEYS).map((answer, i) => [String(i + 1), answer]))

/** Keys of a pedal or a media button, and what they were taught to do; written by the third hand, where it is on. */
export const taughtKeys = shallowRef<Readonly<Record<string, BenchKey>>>({})

/** A caliper types its figure faster than any hand: keys this close together are a figure, not commands. */
const TYPED_MS = 30
/** A device's figure, for the line that waits for one; what types like a keyboard has no unit. */
export const FIGURE_TYPED = 'ocho:figure'
export type FigureTold = { value: number; unit: 'mm' | 'N·m' | null }

declare global {
  interface WindowEventMap {
    [FIGURE_TYPED]: CustomEvent<FigureTold>
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
    else if (/^[-+]?\d*[.,]?\d+$/.test(typed)) tellFigure({ value: Number(typed.replace(',', '.')), unit: null })
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
    // a pedal is the key that it was taught to be
    const pressed = taughtKeys.value[event.key] ?? event.key
    const known = pressed.length === 1 ? pressed.toLowerCase() : pressed
    if (!held && !keys()[known as BenchKey] && !/^[-+\d.,]$/.test(pressed)) return
    event.preventDefault()
    if (held) clearTimeout(held.timer)
    burst += pressed.length === 1 ? pressed : ''
    // within a rush, only figures count; its Enter ends it unheard
    held = {
      name: held && pressed === 'Enter' ? held.name : pressed,
      at: event.timeStamp,
      timer: setTimeout(settle, TYPED_MS),
    }
  })
}

/** Tells a device's figure to the page. @returns whether a line took it */
export const tellFigure = (detail: FigureTold): boolean =>
  !window.dispatchEvent(new CustomEvent(FIGURE_TYPED, { detail, cancelable: true }))

/** Takes a device's figures into the line that waits for them; of another unit they are not its. */
export const useFigureTyped = (take: (text: string) => void, of: 'mm' | 'N·m' = 'mm') =>
  useEventListener(FIGURE_TYPED, event => {
    const { value, unit } = event.detail
    if (unit !== null && unit !== of) return
    event.preventDefault()
    take(String(value))
  })
