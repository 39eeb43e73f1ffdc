/** What is said of the rear, by id; apart from its causes and tests, since every screen says the ledger. `practice` */
const SAYS: ReadonlyMap<string, string> = new Map([
  ['nothing', 'Clicks, nothing happens'],
  ['slow-in', 'Slow to easier gears'],
  ['slow-out', 'Slow to harder gears'],
  ['two-gears', 'Two gears for one click'],
  ['one-gear-chatters', 'Chatters in one gear'],
  ['all-chatter', 'Chatters everywhere'],
  ['one-end', 'Fine at one end only'],
  ['not-largest', 'Will not reach the largest'],
  ['not-smallest', 'Will not reach the smallest'],
  ['into-spokes', 'Went into the spokes'],
  ['off-outside', 'Came off outside'],
  ['jumps-under-load', 'Jumps when pushed hard'],
  ['even-skip', 'Skips evenly in any gear'],
  ['by-itself', 'Shifts by itself on climbs or bumps'],
  ['when-steering', 'Shifts when steering'],
  ['since-cable', 'Worse since a cable job'],
  ['noisy-largest', 'Noisy on the largest only'],
])
/** A complaint of the rear in the customer's words; undefined for any other. */
export const rearSays = (id: string): string | undefined => SAYS.get(id)
