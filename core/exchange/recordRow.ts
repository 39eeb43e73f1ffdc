import { RECORD_RULES, recordRule } from '../records/chapters'
import { z } from 'zod'
import { moment } from '../http/words'
import { FrameKind } from '../standards/frames'

/** One recorded figure of one visit. Bikes by id only: no names leave with the records. */
export const RecordRow = z
  .strictObject({
    id: z.uuid('id: a UUID'),
    standard: z
      .string()
      .trim()
      .min(1, 'standard is empty: name the drivetrain standard')
      .max(40, 'standard is longer than 40 characters'),
    figure: z
      .string()
      .refine(f => recordRule(f) !== undefined, { error: `figure: one of ${RECORD_RULES.map(r => r.key).join(', ')}` }),
    frame: FrameKind.nullable(),
    value: z.number({ error: 'value: a number' }).min(-200, 'value: not below −200').max(5000, 'value: at most 5000'),
    unit: z.string(),
    bike: z.uuid('bike: a UUID').nullable(),
    at: moment('at', 'a UTC time such as 2026-11-25T09:00:00.000Z'),
  })
  .superRefine((row, ctx) => {
    const rule = recordRule(row.figure)
    if (rule && row.unit !== rule.unit)
      ctx.addIssue({
        code: 'custom',
        path: ['unit'],
        message: `unit: ${rule.what} is kept in ${rule.unit || 'no unit'}, not ${row.unit || 'none'}`,
      })
  })
export type RecordRow = z.infer<typeof RecordRow>
