import type { NotCoasted } from './coasting'
import type { Listened, NotHeard } from './listen'

export const NOT_HEARD_WORDS: Record<NotHeard['why'], string> = {
  short: 'Pedal evenly; a few seconds more',
  quiet: 'The microphone hears nothing: is it muted, or covered?',
  loud: 'The room is too loud, or nobody pedals: come nearer, or say what you hear as always',
}

export const NOT_COASTED_WORDS: Record<NotCoasted['why'], string> = {
  short: 'Let it listen to the end',
  quiet: NOT_HEARD_WORDS.quiet,
  steady:
    'Something ticks, and does not slow down: a machine, or somebody pedals. Spin the wheel, let go, listen again',
  even: 'No even tick was heard. Does the wheel spin, and the tablet lie within half a metre? Then it does not tick: say so',
}

/** What else was heard beside rub and clean, in words; null for nothing. */
export function sayBeside({
  notTheGears,
  knocks,
  shifts,
}: Pick<Listened, 'notTheGears' | 'knocks' | 'shifts'>): string | null {
  if (notTheGears === 'wheel') return 'Comes once a turn of the wheel: not the gears, look at the wheel and its tyre'
  if (notTheGears === 'crank') return 'Comes once a turn of the cranks: not these gears, look at the front'
  const late = shifts.filter(s => s.late).at(-1)
  if (late) return `A shift clattered on for ${late.lastsS.toFixed(1)} s: it came late`
  if (knocks >= 2) return `${knocks} hard knocks: does it skip under load? Look at the teeth`
  return null
}

/** Odds in words; null where they say next to nothing. */
export function sayOdds(odds: number, yes: string, no: string): string | null {
  const times = Math.max(odds, 1 / odds)
  return times < 1.5 ? null : `${times.toFixed(0)} to 1 for ${odds > 1 ? yes : no}`
}

/** What the microphone thinks, in words: never surer than it is. */
export const saySounded = (rubOdds: number): string =>
  rubOdds >= 3 ? 'sounds like a rub' : rubOdds <= 1 / 3 ? 'sounds clean' : 'cannot tell'
