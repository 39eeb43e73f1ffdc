import { placeOf, type Shot } from './measure'

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
  return packed(canvas)
}

const packed = (canvas: HTMLCanvasElement): Promise<Blob> =>
  new Promise((resolve, reject) =>
    canvas.toBlob(b => (b ? resolve(b) : reject(new Error('no picture'))), 'image/jpeg', QUALITY),
  )

/**
 * A measured photograph as it is kept: what was touched and a margin about it, its lines and its figure drawn in.
 */
export async function linedPhoto(
  shot: Shot,
  lines: readonly (readonly [string, string])[],
  words: string,
): Promise<Blob> {
  const picture = await createImageBitmap(shot.file)
  const all = Object.values(shot.touched).map(placeOf)
  const [us, vs] = [all.map(p => p[0]), all.map(p => p[1])]
  const margin = 0.25 * Math.max(Math.max(...us) - Math.min(...us), Math.max(...vs) - Math.min(...vs))
  const left = Math.max(0, Math.min(...us) - margin)
  const top = Math.max(0, Math.min(...vs) - margin)
  const width = Math.min(picture.width, Math.max(...us) + margin) - left
  const height = Math.min(picture.height, Math.max(...vs) + margin) - top
  const scale = Math.min(2, LONGEST_PX / Math.max(width, height))
  const canvas = document.createElement('canvas')
  canvas.width = Math.max(240, Math.round(width * scale))
  canvas.height = Math.max(160, Math.round(height * scale))
  const at = canvas.getContext('2d')!
  at.drawImage(picture, left, top, width, height, 0, 0, width * scale, height * scale)
  picture.close()
  const place = (id: string) => placeOf(shot.touched[id]!)
  const on = ([u, v]: readonly [number, number]) => [(u - left) * scale, (v - top) * scale] as const
  const stroke = (draw: () => void) => {
    for (const [style, thick] of [
      ['#12181a', 5],
      ['#ffb65c', 2],
    ] as const) {
      at.strokeStyle = style
      at.lineWidth = thick
      at.beginPath()
      draw()
      at.stroke()
    }
  }
  for (const [a, b] of lines)
    stroke(() => {
      at.moveTo(...on(place(a)))
      at.lineTo(...on(place(b)))
    })
  for (const p of all) stroke(() => at.arc(...on(p), 8, 0, 2 * Math.PI))
  at.font = '600 20px sans-serif'
  at.fillStyle = '#12181a'
  at.fillRect(0, 0, at.measureText(words).width + 20, 34)
  at.fillStyle = '#dde6e2'
  at.fillText(words, 10, 24)
  return packed(canvas)
}
