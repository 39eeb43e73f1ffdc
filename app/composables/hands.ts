import { useLocalStorage } from '@vueuse/core'
import { z } from 'zod'
import type { BenchKey } from './benchKeys'

/*
 * What a person's third hand does at a bench: a foot pedal or a media button taught key by key, knocks heard, and the
 * next move spoken. Kept on this tablet for each person alone; all off until it is switched on.
 */

export const HAND_ACTS = [
  { act: 'Enter', words: 'Done as advised' },
  { act: '1', words: 'Heard clean' },
  { act: '0', words: 'Clean all the way' },
  { act: 'z', words: 'Take back' },
] as const satisfies readonly { act: BenchKey; words: string }[]
export type HandAct = (typeof HAND_ACTS)[number]['act']
const Act = z.enum(HAND_ACTS.map(a => a.act) as [HandAct, ...HandAct[]])

const Hands = z.object({
  on: z.boolean().default(false),
  /** By what `KeyboardEvent.key` says. */
  taught: z.record(z.string().min(1).max(30), Act).default({}),
  speaks: z.boolean().default(false),
  /** Two knocks or claps, close together, are this. */
  knocks: Act.nullable().default(null),
})
export type Hands = z.infer<typeof Hands>
const All = z.record(z.string(), Hands)
const NONE: Hands = { on: false, taught: {}, speaks: false, knocks: null }

/** Keys that people type and find their way with are not taught: they would be taken from them. */
export const NOT_TAUGHT = ['Tab', 'Shift', 'Control', 'Alt', 'Meta', 'Escape', 'Unidentified', 'Dead'] as const

export function useHands() {
  const session = useSession()
  const all = useLocalStorage<Record<string, Hands>>(HANDS_KEY, {}, { serializer: readAs(All, {}) })
  return computed<Hands>({
    get: () => all.value[session.now?.person?.id ?? ''] ?? NONE,
    set: hands => {
      const me = session.now?.person?.id
      if (me) all.value = { ...all.value, [me]: hands }
    },
  })
}

const StandIns = z.object({ camera: z.boolean(), cameraDeg: z.number().min(-45).max(45), microphone: z.boolean() })
export type StandIns = z.infer<typeof StandIns>
const NO_STAND_INS: StandIns = { camera: false, cameraDeg: 0.5, microphone: false }
/**
 * Which stand-ins this tablet uses in place of real devices: a camera that shows rendered bikes, a microphone. Only in
 * the demo's shop: what they show is no customer's bike, and would open its gates.
 */
export function useStandIns() {
  const session = useSession()
  const kept = useLocalStorage<StandIns>('ocho-stand-ins', NO_STAND_INS, { serializer: readAs(StandIns, NO_STAND_INS) })
  return computed<StandIns>({
    get: () => (session.now?.shop.demo ? kept.value : NO_STAND_INS),
    set: chosen => {
      if (session.now?.shop.demo) kept.value = chosen
    },
  })
}
