/**
 * What an eye finds at a practice brake when it squeezes, lets go, spins or looks: drawn and moving, told in words only
 * to who asks for them. How fast a lever or a wheel goes is drawn, not modelled.
 */
export const BRAKE_DRAWN = ['lever', 'arms', 'spin', 'pads'] as const
export type BrakeDrawn = (typeof BRAKE_DRAWN)[number]
export const isBrakeDrawn = (look: string): look is BrakeDrawn => (BRAKE_DRAWN as readonly string[]).includes(look)

export type BrakeSight = {
  of: 'brake'
  /** A rotor between the pads, or a rim. */
  disc: boolean
  /** The look that is seen, and what comes of it; null: it stands still. */
  look: BrakeDrawn | null
  outcome: string
}

/** `lever`: 0 open, 1 at the bar. `left`, `right`: 0 as they stand let go, 1 at the rim. `rim`: −1 to 1, at a pad. */
export type BrakePose = { lever: number; left: number; right: number; rim: number; wheelTurns: number }

type Squeeze = { to: number; takesS: number; left: number; right: number; brakes: number }
type LetGo = { left: number; right: number; takesS: number }

/** How far the lever comes and how long that takes, how far the pads come, and how hard the wheel is braked. */
const SQUEEZES: Record<string, Squeeze> = {
  'lever firm': { to: 0.5, takesS: 0.3, left: 1, right: 1, brakes: 1 },
  'lever bar': { to: 1, takesS: 0.4, left: 1, right: 1, brakes: 0.3 },
  'lever nothing': { to: 1, takesS: 0.2, left: 0, right: 0, brakes: 0 },
  'lever wooden': { to: 0.4, takesS: 0.3, left: 1, right: 1, brakes: 0.15 },
  'lever stiff': { to: 0.5, takesS: 1.7, left: 1, right: 1, brakes: 1 },
  'lever stiff-weak': { to: 0.5, takesS: 1.7, left: 1, right: 1, brakes: 0.15 },
  'arms alike': { to: 0.5, takesS: 0.4, left: 1, right: 1, brakes: 1 },
  'arms one': { to: 0.5, takesS: 0.4, left: 1, right: 0.35, brakes: 0.5 },
  'arms dead': { to: 0.5, takesS: 0.4, left: 1, right: 1, brakes: 1 },
  'arms slow': { to: 0.5, takesS: 0.4, left: 1, right: 1, brakes: 1 },
  'arms short': { to: 0.9, takesS: 0.4, left: 0.55, right: 0.55, brakes: 0 },
  'arms still': { to: 0.9, takesS: 0.4, left: 0, right: 0, brakes: 0 },
}
/** Where the pads stand once the lever is open again, and how long they take. */
const LETS_GO: Record<string, LetGo> = {
  'arms one': { left: 0.6, right: 0, takesS: 0.3 },
  'arms dead': { left: 1, right: 0, takesS: 0.3 },
  'arms slow': { left: 0, right: 0, takesS: 1.6 },
}
const BACK: LetGo = { left: 0, right: 0, takesS: 0.3 }
const STILL: BrakePose = { lever: 0, left: 0, right: 0, rim: 0, wheelTurns: 0 }

const SQUEEZED_AT_S = 0.5
const LET_GO_AT_S = 3
/** A look lasts so long, seconds. */
export const BRAKE_LOOK_S = 5
/** The wheel as it is spun. */
export const TURNS_PER_S = 1.2
/** A brake that holds stops the wheel in so long. */
const STOPS_S = 0.35

const share = (s: number, from: number, takes: number): number => Math.min(1, Math.max(0, (s - from) / takes))

/** How brake and wheel stand so many seconds into a look. */
export function brakePose({ look, outcome }: BrakeSight, s: number): BrakePose {
  const at = Math.min(BRAKE_LOOK_S, Math.max(0, s))
  if (look === 'spin') {
    const wheelTurns = at * TURNS_PER_S
    const rim = outcome === 'wobbles' ? Math.sin(2 * Math.PI * wheelTurns) : outcome === 'side' ? 1 : 0
    return { ...STILL, rim, wheelTurns }
  }
  const squeeze = SQUEEZES[`${look} ${outcome}`]
  if (!squeeze) return STILL
  const back = LETS_GO[`${look} ${outcome}`] ?? BACK
  const drawn = share(at, SQUEEZED_AT_S, squeeze.takesS)
  const open = share(at, LET_GO_AT_S, BACK.takesS)
  const returned = share(at, LET_GO_AT_S, back.takesS)
  const pad = (to: number, stays: number) => to * drawn + (stays - to) * returned
  return {
    lever: squeeze.to * drawn * (1 - open),
    left: pad(squeeze.left, back.left),
    right: pad(squeeze.right, back.right),
    rim: 0,
    wheelTurns: look === 'lever' ? turned(at, squeeze) : 0,
  }
}

/**
 * Turns of the wheel: it runs until the pads are there, then slows by how hard it is braked; what stands goes on
 * standing.
 */
function turned(s: number, { takesS, brakes }: Squeeze): number {
  const bites = SQUEEZED_AT_S + takesS
  if (s <= bites || !brakes) return s * TURNS_PER_S
  const stops = STOPS_S / brakes
  const braked = Math.min(s, LET_GO_AT_S) - bites
  const slowed = Math.min(braked, stops)
  const speed = TURNS_PER_S * (1 - slowed / stops)
  return bites * TURNS_PER_S + (TURNS_PER_S + speed) * 0.5 * slowed + Math.max(0, s - LET_GO_AT_S) * speed
}

/** How the pads look, close up: what is left of them and where they meet the track, shares. */
export const padLooks = ({ look, outcome }: BrakeSight): { life: number; glazed: boolean; below: number } => ({
  life: look === 'pads' ? ({ worn: 0.12, part: 0.5 }[outcome] ?? 0.9) : 0.9,
  glazed: look === 'pads' && outcome === 'glazed',
  below: look === 'pads' && outcome === 'off-track' ? 0.6 : 0,
})
