import type { z } from 'zod'

/** Fetches with the page and reads the answer by the contract's schema. */
export const useRead = <S extends z.ZodType>(
  schema: S,
  url: string | (() => string),
  options: { key?: string; query?: Record<string, string>; immediate?: boolean } = {},
) =>
  useFetch(url, {
    ...options,
    transform: (raw: unknown): z.infer<S> => schema.parse(raw),
  })
