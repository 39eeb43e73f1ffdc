/**
 * How a B gap is told without a figure: by eye, against a template held between the tips, or by whether the pulley
 * touches on the way into the largest sprocket. `practice`
 */
export const GAP_LOOKS = ['close', 'fine', 'far', 'over', 'in-line', 'under', 'touches', 'clears'] as const
export type GapLook = (typeof GAP_LOOKS)[number]
export const GAP_LOOK_WORDS: Record<GapLook, string> = {
  close: 'Close',
  fine: 'Fine',
  far: 'Far',
  over: 'Over the line',
  'in-line': 'In line',
  under: 'Under it',
  touches: 'Touches',
  clears: 'Clears',
}
export const BY_EYE = ['close', 'fine', 'far'] as const satisfies readonly GapLook[]
/** The pulley's tips against the line of a template that stands on the sprocket. */
export const BY_TEMPLATE = ['over', 'in-line', 'under'] as const satisfies readonly GapLook[]
export const BY_TOUCH = ['touches', 'clears'] as const satisfies readonly GapLook[]

/** A step of the B screw by eye, sixteenths of a turn: a quarter. */
const STEP = 4

/** A look, and how far the B screw stood in, sixteenths of a turn. */
export type GapSeen = { look: GapLook; bSixteenths: number }

/**
 * What the looks so far ask for: turns of the B screw in quarters (+ in, the gap grows); `good` once it stands as it
 * should; `again` when it was turned since it was looked at, or never was. The smallest that clears is found from the
 * touch: in until it clears, or out until it touches and a quarter back.
 */
export function gapByLooks(
  seen: readonly GapSeen[],
  nowSixteenths: number,
): { turns: number; good: boolean; again: boolean } {
  const last = seen.at(-1)
  if (!last || last.bSixteenths !== nowSixteenths) return { turns: 0, good: false, again: true }
  const move = (sixteenths: number) => ({ turns: sixteenths / 16, good: sixteenths === 0, again: false })
  switch (last.look) {
    case 'fine':
    case 'in-line':
      return move(0)
    case 'close':
    case 'over':
    case 'touches':
      return move(STEP)
    case 'far':
    case 'under':
      return move(-STEP)
    case 'clears': {
      const touched = seen.filter(s => s.look === 'touches').map(s => s.bSixteenths)
      return move(touched.some(t => nowSixteenths - t <= STEP && nowSixteenths > t) ? 0 : -STEP)
    }
  }
}
