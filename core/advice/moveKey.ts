import type { Move } from './contract'

/** The key of a move in the ledger: "turn barrel 0.375", "sight L". */
export function moveKey(move: Move): string {
  return Object.values(move)
    .map(v => (typeof v === 'number' ? String(Math.round(v * 1000) / 1000) : v))
    .join(' ')
}

/** What is left when a move is left: "turn barrel" by any amount, "sight L", "replace cable" for whatever cause. */
export function declineKey(move: Move): string {
  switch (move.do) {
    case 'turn':
      return `turn ${move.screw}`
    case 'replace':
      return `replace ${move.part}`
    case 'reclamp':
      return 'reclamp'
    // a click more or less is the same listening
    case 'shift':
    case 'pass':
      return 'listen'
    default:
      return moveKey(move)
  }
}
