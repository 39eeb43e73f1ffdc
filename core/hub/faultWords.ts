/** A hub's faults by name; apart from their cures, since every screen says the ledger and only the bench cures. */
const WORDS: ReadonlyMap<string, string> = new Map([
  ['slack', 'Cable too slack'],
  ['tight', 'Cable too tight'],
  ['lock-nut', 'Lock nut loose, the anchor crept'],
  ['not-home', 'Chain not screwed home'],
  ['axle', 'Axle moved'],
  ['washers', 'Anti-turn washers wrong'],
  ['drag', 'Drag in the housing'],
  ['much-play', 'Too much play in the grip'],
  ['no-play', 'No play, grip stiff'],
  ['coupling', 'A wire slips in its coupling'],
  ['crossed', 'Couplings or heads swapped'],
  ['grip-apart', 'Grip and hub a number apart'],
  ['inside', 'Inside the hub'],
])

/** A fault in words by its id; undefined where no hub has such a fault. */
export const hubFaultWords = (id: string): string | undefined => WORDS.get(id)
