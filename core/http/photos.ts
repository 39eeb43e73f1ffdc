import { z } from 'zod'
import { RUNS } from '../cable/housing'

/** A photograph is made smaller on the tablet; a larger one is refused. */
export const MAX_PHOTO_BYTES = 3 * 1024 * 1024
export const MAX_PHOTOS = 24

export const PHOTO_KINDS = ['image/jpeg', 'image/png'] as const
/**
 * What a photograph shows: a run of cable; the bike as it came: its frame, its number, a crack; or what was measured in
 * it, with its lines, before the work and after.
 */
export const MEASURED = ['measured-found', 'measured-left'] as const
export const PhotoOf = z.enum([...RUNS, 'bike', ...MEASURED])
export type PhotoOf = z.infer<typeof PhotoOf>
export const PhotoAsk = z.strictObject({ of: PhotoOf })
export const PhotoView = z.object({ id: z.string(), of: PhotoOf, by: z.string(), madeAt: z.string() })
export type PhotoView = z.infer<typeof PhotoView>

/**
 * What the bytes themselves say they are, whatever the sender says; null when neither. JPEG and PNG signatures, `std`
 * ISO/IEC 10918-1 and 15948.
 */
export function photoKind(bytes: Uint8Array): (typeof PHOTO_KINDS)[number] | null {
  const starts = (...head: number[]) => bytes.length > head.length && head.every((b, i) => bytes[i] === b)
  if (starts(0xff, 0xd8, 0xff)) return 'image/jpeg'
  if (starts(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a)) return 'image/png'
  return null
}
