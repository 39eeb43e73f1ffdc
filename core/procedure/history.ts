import { rearSays } from './rearSays'

/** What may have happened to the bike before; each moves the odds, so it is asked. `practice` */
export const HAPPENED = ['Fell over', 'Rode in a car', 'Wheel was out', 'New cable'] as const

/** Words offered at the door, the commonest first: the customer's, and what happened. */
export const SAID_AT_DOOR: readonly string[] = [
  ...['slow-in', 'slow-out', 'all-chatter'].flatMap(id => {
    const says = rearSays(id)
    return says ? [says] : []
  }),
  'Brakes too',
  ...HAPPENED,
]

const bare = (text: string) => text.toLowerCase().trim()
/** Is it said already? */
export const isSaid = (complaint: string, phrase: string): boolean => bare(complaint).includes(bare(phrase))

/** The customer's words with a phrase added, or taken out again where it is in them. */
export function withPhrase(complaint: string, phrase: string): string {
  const at = bare(complaint) === '' ? -1 : complaint.toLowerCase().indexOf(phrase.toLowerCase())
  if (at < 0) {
    const said = complaint.trim().replace(/[,.;]$/, '')
    return said ? `${said}, ${phrase.toLowerCase()}` : phrase
  }
  const left = `${complaint.slice(0, at)}${complaint.slice(at + phrase.length)}`
  const tidy = left
    .replace(/\s*,\s*(?=,|$)/g, '')
    .replace(/^\s*,\s*/, '')
    .trim()
  return tidy ? `${tidy[0]!.toUpperCase()}${tidy.slice(1)}` : ''
}
