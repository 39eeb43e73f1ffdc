import type { z } from 'zod'

/** How this tablet's own storage is read: by a schema, and as if empty where what stands there is not of it. */
export const readAs = <T>(schema: z.ZodType<T>, otherwise: T) => ({
  read: (raw: string): T => {
    try {
      return schema.safeParse(JSON.parse(raw)).data ?? otherwise
    } catch {
      return otherwise
    }
  },
  write: (value: T): string => JSON.stringify(value),
})
