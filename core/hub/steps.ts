import type { HubWay } from './kinds'
import { HUB_STEP_IDS, hubStepWords } from './stepWords'

/** A step of setting a hub, one touch each. */
type Told = { id: string; how: string; caution?: string }
export type HubStep = Told & { what: string }
const STILL = 'Wheel still: no hand near a moving wheel or chain.'
const WIRE = 'Frayed ends stab and cut wire flies: goggles on.'
const RIDE = 'Stop at once if it slips or finds no gear.'

/** What lies ready before the first step: halfway through the bike does not ride. Sizes are `practice`. */
export const HUB_KIT: Record<HubWay, string> = {
  rod: 'light, rag, key of the axle nuts',
  marks: 'light, rag for the marks',
  twin: 'two new 1.1 mm inners, 2 mm key, T20, sharp cutter, tape, torque key for 1.5 and 3 N·m, goggles',
}

const TOLD: Record<HubWay, readonly Told[]> = {
  rod: [
    {
      id: 'home',
      how: 'Finger tight, then up to half a turn back so that it lines up with the cable.',
    },
    {
      id: 'slack',
      how: 'Highest gear, crank a turn, then join chain and anchor.',
      caution: STILL,
    },
    {
      id: 'window',
      how: 'In the setting gear look through the nut’s window: the rod past the axle end as the picture shows. Anchor tighter draws it out.',
    },
    {
      id: 'locked',
      how: 'Lock nut against the anchor. Fingers cannot turn it.',
      caution:
        'A loose lock nut lets the anchor creep: the hub drops into its highest gear and the chain can fall out.',
    },
    {
      id: 'cycled',
      how: 'All gears twice, cranks turning; the top gear runs free of drag and ticks its own way. Look at the window again.',
      caution: RIDE,
    },
  ],
  marks: [
    { id: 'reference', how: 'Lever to the setting gear, crank a turn.' },
    {
      id: 'marks',
      how: 'Barrel until the two marks stand in line, seen square on.',
      caution: STILL,
    },
    {
      id: 'end',
      how: 'Shift to one end, back to the setting gear, look again: they must stand as before.',
    },
    { id: 'cycled', how: 'All gears twice, cranks turning, then under load.', caution: RIDE },
  ],
  twin: [
    {
      id: 'parted',
      how: 'Two grub screws each, 2 mm key, never unscrewed more than 2 mm. Housings out.',
      caution: WIRE,
    },
    {
      id: 'inners-out',
      how: 'Turn the grip until the head shows and push. Stops off with their small star screw: the top one first, then the lower.',
    },
    {
      id: 'lower',
      how: 'Seen from the front of the grip its head seats left. Draw it home and tug it.',
    },
    {
      id: 'upper',
      how: 'Head seats right. Lower stop off, inner through, fed back from the top round the inside, stop on again: 3 N·m. Draw it home and tug it.',
    },
    {
      id: 'adjusters',
      how: 'Both fully in, two turns out, housings seated.',
    },
    {
      id: 'fourteen',
      how: 'Draw the hub to gear 14 by its rear cable, grip to 14, tape it there.',
    },
    {
      id: 'cut-rear',
      how: 'Coupling and inner side by side: cut 5 mm from the coupling’s end, in gear 14.',
      caution: WIRE,
    },
    {
      id: 'rear-coupled',
      how: 'Wire flush with the hole; one grub flush, then the other, 1.5 N·m.',
    },
    {
      id: 'cut-front',
      how: 'Grip and hub to gear 1; part the first coupling to gain room. Cut 5 mm from the coupling’s end.',
      caution: WIRE,
    },
    { id: 'front-coupled', how: 'Flush, one grub, then the other, 1.5 N·m. Join both again.' },
    { id: 'clicks', how: 'From 1 to 14 and back: thirteen clicks each way.', caution: RIDE },
    {
      id: 'play',
      how: 'Adjusters until the grip has about 2 mm of free play. Slack never picks a wrong gear: indexing is inside the hub.',
    },
  ],
}

/** How each way is set, in order. `practice`; torques `practice`, marks and the half turn `memory`. */
export const hubSteps = (way: HubWay): HubStep[] =>
  HUB_STEP_IDS[way].map(id => ({ ...TOLD[way].find(s => s.id === id)!, what: hubStepWords(id) ?? id }))
