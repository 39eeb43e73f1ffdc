/** What a mechanic does at the rear derailleur. The order of the middle is a school; first and last stay. */
export const STAGES = ['said', 'sense', 'hanger', 'stops', 'cable', 'index', 'gap', 'prove', 'handBack'] as const
export type Stage = (typeof STAGES)[number]

export const STAGE_WORDS: Record<Stage, string> = {
  said: 'What they say',
  sense: 'Sense check',
  hanger: 'Hanger',
  stops: 'Stops',
  cable: 'Cable on',
  index: 'Index',
  gap: 'B gap',
  prove: 'Prove',
  handBack: 'Hand back',
}
