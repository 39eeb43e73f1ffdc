/**
 * What is said of front, brakes and hub, by id; apart from its tests, since every screen says the ledger. `practice`
 */
const SAYS: ReadonlyMap<string, string> = new Map([
  ['front-no-climb', 'Front will not go to the big ring'],
  ['front-no-drop', 'Front will not go to the small ring'],
  ['front-off-inside', 'Chain falls off inside in front'],
  ['front-off-outside', 'Chain falls off outside in front'],
  ['front-rubs', 'Chain rubs in front'],
  ['brake-weak', 'Brake weak, lever near the bar'],
  ['brake-rubs', 'Brake rubs'],
  ['brake-noise', 'Brake squeals or grinds'],
  ['brake-stiff', 'Brake heavy, or slow to let go'],
  ['hub-slips', 'Hub slips, or finds no gear'],
  ['hub-one-off', 'Hub gives another gear than it says'],
])
/** A complaint of front, brakes or hub in words; undefined for any other. */
export const otherSays = (id: string): string | undefined => SAYS.get(id)
export const OTHER_IDS: readonly string[] = [...SAYS.keys()]

/** Over which ends of the front the customer saw the chain thrown: nobody shifts that way before its stop was seen. */
export const throwsChain = (said: readonly { complaint: string }[]): ('inboard' | 'outboard')[] =>
  (['inboard', 'outboard'] as const).filter(to => said.some(s => s.complaint === THROWN_AS[to]))
/** What is told where it was. */
export const THROWN_CAUTION = {
  inboard: 'No shift to the small ring until L was seen by itself: a chain that falls inside can lock the cranks.',
  outboard: 'No shift to the big ring until H was seen by itself: a chain that falls outside throws the rider.',
} as const
const THROWN_AS = { inboard: 'front-off-inside', outboard: 'front-off-outside' } as const
