import { z } from 'zod'

/** A number within bounds, refused with words that name it and say them. */
export const within = (what: string, least: number, most: number) =>
  z
    .number({ error: `${what}: type a number` })
    .min(least, `${what}: from ${least} to ${most}`)
    .max(most, `${what}: from ${least} to ${most}`)
