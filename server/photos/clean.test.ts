import sharp from 'sharp'
import { expect, test } from 'vitest'
import { cleanPhoto } from './clean'

const picture = () =>
  sharp({ create: { width: 60, height: 40, channels: 3, background: '#887766' } })
    .jpeg()
    .withExif({ IFD0: { Make: 'a camera' }, IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '53/1 20/1 0/1' } })

test('where a picture was taken, and with what, is gone; the picture is there', async () => {
  const raw = await picture().toBuffer()
  expect((await sharp(raw).metadata()).exif).toBeDefined()
  const clean = await cleanPhoto(raw, 'image/jpeg')
  const told = await sharp(clean).metadata()
  expect([told.exif, told.xmp, told.iptc]).toEqual([undefined, undefined, undefined])
  expect([told.width, told.height]).toEqual([60, 40])
  expect(clean.includes('a camera')).toBe(false)
})

test('a picture that was held upright stays upright without its note of how', async () => {
  const held = await picture().withMetadata({ orientation: 6 }).toBuffer()
  const told = await sharp(await cleanPhoto(held, 'image/jpeg')).metadata()
  expect([told.width, told.height, told.orientation ?? 1]).toEqual([40, 60, 1])
})

test('what only begins like a picture is refused, and one of absurd size', async () => {
  await expect(cleanPhoto(Buffer.from([0xff, 0xd8, 0xff, 1, 2, 3]), 'image/jpeg')).rejects.toThrow()
  const wide = await sharp({ create: { width: 9000, height: 7000, channels: 3, background: '#000' } })
    .png()
    .toBuffer()
  await expect(cleanPhoto(wide, 'image/png')).rejects.toThrow(/pixel limit/)
})
