/** Longest side of a photograph as it is kept, px, and how it is packed. */
const LONGEST_PX = 1600
const QUALITY = 0.82

/**
 * A photograph made small enough to send; drawing it anew leaves behind where and with what it was taken. Rejects what
 * is no picture.
 */
export async function smallerPhoto(file: Blob): Promise<Blob> {
  const picture = await createImageBitmap(file)
  const scale = Math.min(1, LONGEST_PX / Math.max(picture.width, picture.height))
  const canvas = document.createElement('canvas')
  canvas.width = Math.max(1, Math.round(picture.width * scale))
  canvas.height = Math.max(1, Math.round(picture.height * scale))
  canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height)
  picture.close()
  return new Promise((resolve, reject) =>
    canvas.toBlob(b => (b ? resolve(b) : reject(new Error('no picture'))), 'image/jpeg', QUALITY),
  )
}
