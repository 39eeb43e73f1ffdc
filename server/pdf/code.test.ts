import { createCanvas, loadImage, type Canvas } from '@napi-rs/canvas'
import { BinaryBitmap, DecodeHintType, HybridBinarizer, QRCodeReader, RGBLuminanceSource } from '@zxing/library'
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs'
import { expect, test } from 'vitest'
import type { JobView } from '#core/http/job'
import type { Sheet } from '#core/ledger/sheet'
import { placesOf } from '#core/cable/places'
import { templateRun } from '#core/cable/templates'
import { usualHubs } from '#core/hub/kinds'
import { randomFrom } from '#core/quantity/random'
import { stockParts } from '#core/rear/typedParts'
import { setupOfSheet } from '#core/travel/ofSheet'
import { readSetup } from '#core/travel/read'
import { writeSetup } from '#core/travel/write'
import { TEST_SHEET } from '#core/ledger/testSheet'
import { drawSheet } from './sheetPdf'

/** What a code on the page says, by a reader that is not Ocho's (ZXing); null where it finds none. */
function read(canvas: Canvas, x: number, y: number, size: number): string | null {
  const { data } = canvas.getContext('2d').getImageData(x, y, size, size)
  const grey = new Uint8ClampedArray(size * size)
  for (let i = 0; i < grey.length; i++) grey[i] = (data[4 * i]! + data[4 * i + 1]! + data[4 * i + 2]!) / 3
  const bitmap = new BinaryBitmap(new HybridBinarizer(new RGBLuminanceSource(grey, size, size)))
  const hints = new Map<DecodeHintType, unknown>([[DecodeHintType.TRY_HARDER, true]])
  try {
    return new QRCodeReader().decode(bitmap, hints).getText()
  } catch {
    return null
  }
}

/** The first page at 150 dots an inch, as paper shows it to a phone. */
async function page150(pdf: Buffer): Promise<Canvas> {
  const document = await getDocument({ data: new Uint8Array(pdf), verbosity: 0 }).promise
  expect(document.numPages).toBe(1)
  const page = await document.getPage(1)
  const viewport = page.getViewport({ scale: 150 / 72 })
  const canvas = createCanvas(Math.ceil(viewport.width), Math.ceil(viewport.height))
  await page.render({ canvasContext: canvas.getContext('2d') as never, viewport }).promise
  return canvas
}

/** A code's side on paper, dots. */
const SIDE = Math.round((45 / 25.4) * 150)
/** Room around it, as a hand holds a phone: one frame after the other, a little nearer, farther and aside. */
const FRAMES = [1.18, 1.24, 1.3].map(f => Math.round(SIDE * f))
const WINDOW = FRAMES.at(-1)!
function around(canvas: Canvas, x: number, y: number): string | null {
  for (const aside of [0, -13, 13])
    for (const frame of FRAMES) {
      const text = read(canvas, Math.round(x - frame / 2 + aside), Math.round(y - frame / 2 - aside), frame)
      if (text) return text
    }
  return null
}

/** Middles of the codes on a flat page: one at the left margin, the other at the right one, somewhere down the page. */
function middles(canvas: Canvas): { x: number; y: number }[] {
  const left = Math.round((42 / 72) * 150)
  for (let y = WINDOW / 2; y + WINDOW / 2 < canvas.height; y += 20)
    if (around(canvas, left + SIDE / 2, y)) {
      // from the first row it is read in to the last: its middle lies between
      let to = y
      while (to + WINDOW / 2 < canvas.height && around(canvas, left + SIDE / 2, to + 10)) to += 10
      return [0, 1].map(i => ({ x: i === 0 ? left + SIDE / 2 : canvas.width - left - SIDE / 2, y: (y + to) / 2 }))
    }
  return []
}

const sheet: Sheet = { ...TEST_SHEET, parts: stockParts('r14-10'), netSixteenths: { barrel: 6, H: 0, L: -2, B: 8 } }
const job = {
  number: 7,
  tag: '41',
  complaint: 'Slow in the middle',
  customer: { name: 'Hob', contact: '' },
  bike: { name: 'Petrel lane', frameNumber: '' },
  notes: [],
  people: {},
} as unknown as JobView

const lengths = (['rear', 'rear-brake'] as const).flatMap(run =>
  placesOf(templateRun('external', run)).map(({ place }) => ({ run, place, lengthMm: 285 })),
)
test.each([
  ['one code', sheet, 1],
  ['two codes', { ...sheet, lengths, hub: usualHubs()[0]!.parts }, 2],
] as const)(
  '%s on the paper: read by another reader at 150 dots an inch, turned, and with a dirty corner',
  async (_, sheet, codes) => {
    const wanted = writeSetup(setupOfSheet(sheet, 'Petrel lane'))
    expect(wanted).toHaveLength(codes)
    const pdf = await drawSheet({ kind: 'customer', job, sheet, shop: { name: 'A', zone: 'UTC' }, draft: false })
    const flat = await page150(pdf)
    const places = middles(flat).slice(0, codes)
    expect(places).toHaveLength(codes)
    const image = await loadImage(flat.toBuffer('image/png'))
    for (const { turnDeg, dirty } of [
      { turnDeg: 0, dirty: false },
      { turnDeg: 12, dirty: false },
      { turnDeg: 90, dirty: false },
      { turnDeg: 0, dirty: true },
    ]) {
      const canvas = createCanvas(flat.width + 200, flat.height + 200)
      const context = canvas.getContext('2d')
      context.fillStyle = '#fff'
      context.fillRect(0, 0, canvas.width, canvas.height)
      context.translate(canvas.width / 2, canvas.height / 2)
      context.rotate((turnDeg * Math.PI) / 180)
      context.drawImage(image, -flat.width / 2, -flat.height / 2)
      context.resetTransform()
      const middle = { x: flat.width / 2, y: flat.height / 2 }
      const turn = (turnDeg * Math.PI) / 180
      const found = places.map(p => {
        const [dx, dy] = [p.x - middle.x, p.y - middle.y]
        const x = canvas.width / 2 + dx * Math.cos(turn) - dy * Math.sin(turn)
        const y = canvas.height / 2 + dx * Math.sin(turn) + dy * Math.cos(turn)
        if (dirty) {
          // a greasy thumb over the far corner, the one without a finder
          const random = randomFrom(41, 7)
          context.fillStyle = 'rgba(40, 34, 28, 0.8)'
          for (let k = 0; k < 40; k++) {
            const at = () => SIDE * (0.42 + 0.07 * random.next())
            context.beginPath()
            context.ellipse(x + at(), y + at(), 2 + 5 * random.next(), 1 + 3 * random.next(), 6 * random.next(), 0, 7)
            context.fill()
          }
        }
        return around(canvas, x, y)
      })
      expect(found, `turned ${turnDeg}°, ${dirty ? 'dirty' : 'clean'}`).toEqual(wanted)
    }
    expect(readSetup(places.map(p => around(flat, p.x, p.y)!))).toMatchObject({
      is: 'setup',
      setup: { bike: 'Petrel lane' },
    })
  },
  60_000,
)
