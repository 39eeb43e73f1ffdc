import sharp from 'sharp'

/** A picture of more than so many points is none of a tablet's camera. */
const MOST_PIXELS = 60_000_000
// pictures are made anew beside the server's own work: one at a time
sharp.concurrency(1)

/**
 * The picture made anew from its points alone: turned as it was held, and without anything that was written into the
 * file, above all where it was taken.
 * @throws when it is no picture, or larger than a camera makes them
 */
export async function cleanPhoto(bytes: Buffer, mime: 'image/jpeg' | 'image/png'): Promise<Buffer> {
  const read = sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error' }).autoOrient()
  return mime === 'image/png' ? read.png().toBuffer() : read.jpeg({ quality: 85 }).toBuffer()
}
