import type { Told } from './chapter'

/** When a tap was made, of what log and, once the server has it, when it came and its place. */
export type When = Pick<Told, 'at' | 'receivedAt' | 'seq' | 'basedOn'>
/**
 * When something was seen or touched that what was tapped before does not answer, however late it comes. `asked`: when
 * the first such tap came, which was not believed.
 */
export type Since = { at: string; seq?: number | undefined; asked?: string | undefined }

/** What is said anew by somebody who was asked comes later than the rest of what a tablet had kept, ms. `model` */
const ASKED_FOR_MS = 2000

/**
 * Was this tapped before that? Clocks of tablets can be wrong: one who was asked, and says it again, is believed
 * whatever their clock says.
 */
export function isLate({ at, receivedAt }: When, since: Since | null | undefined): since is Since {
  if (!since || at >= since.at) return false
  if (!since.asked) return true
  return receivedAt !== undefined && Date.parse(receivedAt) - Date.parse(since.asked) < ASKED_FOR_MS
}

/**
 * The same of what is signed, and of what says what the bike is: it tells of what log it knew and counts nothing that
 * waits on its tablet (`tellsWhatItKnew`). Whoever knew of that came after it, whatever their clock says.
 */
export const isUnaware = (told: When, since: Since | null | undefined): since is Since =>
  isLate(told, since) && !(told.basedOn !== undefined && since.seq !== undefined && told.basedOn >= since.seq)

/** That with a late tap asked about; the first that came counts. */
export const askedBy = <S extends Since>(since: S, { receivedAt }: When): S => ({
  ...since,
  asked: since.asked ?? receivedAt,
})

/** Seen or touched now; what came late from after it stands. */
export const since = (was: Since | null, { at, seq }: When): Since => (was && was.at > at ? was : { at, seq })
