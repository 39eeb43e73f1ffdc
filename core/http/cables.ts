import { z } from 'zod'
import { Housing, RUNS } from '../cable/housing'
import { Run } from '../cable/run'
import { line, optionalLine } from './words'

const LengthMm = z
  .int({ error: 'Length: whole mm' })
  .min(1, 'Length: at least 1 mm')
  .max(200_000, 'Length: at most 200 m')

/** A roll or offcut to hang on the wall. */
export const NewStock = z.strictObject({
  kind: Housing,
  lengthMm: LengthMm,
  roll: z.boolean(),
  label: optionalLine('Label', 30),
})
export const StockView = z.object({
  id: z.uuid(),
  kind: Housing,
  lengthMm: z.int(),
  roll: z.boolean(),
  label: z.string(),
  madeAt: z.string(),
})
export type StockView = z.infer<typeof StockView>

/** What was cut: each item as it was seen, and what is left of it, 0 when it goes into the scrap. */
export const CutRequest = z.strictObject({
  cuts: z
    .array(
      z
        .strictObject({ id: z.uuid(), lengthMm: LengthMm, keptMm: z.int().min(0, 'What is left cannot be negative') })
        .refine(c => c.keptMm < c.lengthMm, { path: ['keptMm'], message: 'Less is left than there was' }),
    )
    .min(1, 'cuts is empty')
    .max(100, 'at most 100 rolls at once'),
})

/** Rolls and offcuts that were cut or taken down together, and what of them is put back. */
export const TakenView = z.object({
  at: z.string(),
  items: z.array(z.object({ id: z.uuid(), kind: Housing, lengthMm: z.int() })),
})
export type TakenView = z.infer<typeof TakenView>
export const PutBack = z.strictObject({
  ids: z.array(z.uuid('There is no such roll')).min(1, 'Say what is put back').max(100, 'at most 100 rolls at once'),
})

/** A shop's own template: the runs of a bike under a name. */
export const NewTemplate = z.strictObject({
  name: line('Template', 40),
  runs: z.array(Run).min(1, 'A template needs at least one run').max(RUNS.length),
})
export const TemplateView = z.object({ id: z.uuid(), name: z.string(), runs: z.array(Run) })
export type TemplateView = z.infer<typeof TemplateView>
