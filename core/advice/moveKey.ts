import type { Move } from './contract'

/** The key of a move in the ledger: "turn barrel 0.375", "sight L". */
export function moveKey(move: Move): string {
  return Object.values(move)
    .map(v => (typeof v === 'number' ? String(Math.round(v * 1000) / 1000) : v))
    .join(' ')
}
