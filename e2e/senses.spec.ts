import type { Page } from '@playwright/test'
import { standInSound } from '#core/bench/standInMicrophone'
import { usualHubs } from '#core/hub/kinds'
import { stockParts } from '#core/rear/typedParts'
import { axeFinds } from './axe'
import { sceneBehind, sceneBeside, touchAll } from './standIn'
import {
  expect,
  openBench,
  ready,
  saved,
  sender,
  settled,
  storedEvents,
  test as inAnyShop,
  type TestShop,
} from './shop'

// stand-ins play in the demo's shop only
const test = inAnyShop.extend({ demo: true })

/** A job's entries as they are stored. */
const entriesOf = async (shop: TestShop, number: number) =>
  (await storedEvents(shop, number)).map(e => e.body as { kind: string; at?: string; photoSdMm?: number })

const PARTS = stockParts('r14-10')

const scene = (viewDeg: number, seed: number, shot: number, pushedTo = 0) =>
  sceneBehind(PARTS, { viewDeg, seed, shot, pushedTo })

async function withStandIns(page: Page, cameraDeg: number) {
  await page.evaluate(deg => {
    const on = { camera: true, cameraDeg: deg, microphone: true }
    localStorage.setItem('ocho-stand-ins', JSON.stringify(on))
  }, cameraDeg)
}
async function measurePage(page: Page, shop: TestShop, what: string, cameraDeg = 0.5) {
  const number = await shop.takeIn('71')
  await openBench(page, number)
  await withStandIns(page, cameraDeg)
  await page.goto(`${process.env.OCHO_E2E_URL}/jobs/${number}/measure?what=${what}`)
  return number
}
const mm = async (page: Page) => {
  const words = await page.locator('[data-test=measured]').innerText()
  return Number(/[\d.]+/.exec(words)![0]) * (words.includes('outboard') ? -1 : 1)
}

test('L seen in the stand-in camera’s picture: noted with its spread, the picture kept with its lines', async ({
  bench,
  shop,
}) => {
  const number = await measurePage(bench, shop, 'L')
  await bench.locator('[data-test=stand-in-camera]').click()
  const { bike, places, placeMm } = scene(0.5, number, 1, 9)
  await touchAll(bench, places)
  await expect(bench.locator('[data-test=measured]')).toBeVisible()
  await expect(bench.locator('[data-test=alone]')).toBeVisible()
  // more of the pulley's edge was found besides, between its ends
  const onPulley = () =>
    bench
      .locator('[data-test=along]')
      .evaluateAll(
        (dots, top) => dots.filter(dot => Number(dot.getAttribute('cy')) > top).length,
        places.pulleyUpper[1],
      )
  await expect.poll(onPulley).toBeGreaterThanOrEqual(4)
  const truth = bike.pulley.middle[0] - placeMm.at(-1)!
  expect(Math.abs((await mm(bench)) - truth)).toBeLessThan(1)
  expect(await axeFinds(bench)).toEqual([])
  const wire: string[] = []
  bench.on('request', r => void (r.method() === 'POST' && wire.push(new URL(r.url()).pathname)))
  await bench.locator('[data-test=note]').click()
  await bench.waitForURL(/stage\/stops/)
  await saved(bench)
  const entry = (await entriesOf(shop, number)).find(e => e.kind === 'sight')
  expect(entry).toMatchObject({ at: 'L' })
  expect(entry?.photoSdMm).toBeLessThan(0.6)
  // nothing on the wire but the entry and the job's own photograph
  expect(wire.filter(path => !/\/(events|photos)$/.test(path))).toEqual([])
  const photos = (await (await bench.request.get(`${process.env.OCHO_E2E_URL}/api/jobs/${number}/photos`)).json()) as {
    of: string
  }[]
  expect(photos.map(p => p.of)).toEqual(['measured-found'])
})

test('the gap in the stand-in camera’s picture from the side: noted as from a photograph', async ({ bench, shop }) => {
  const number = await measurePage(bench, shop, 'gap')
  const { bike, places } = sceneBeside(PARTS, number)
  await bench.locator('[data-test=stand-in-camera]').click()
  await bench.locator(`[data-test=pulley-${bike.pulleyTeeth}]`).click()
  await touchAll(bench, places)
  await expect(bench.locator('[data-test=measured]')).toBeVisible()
  // teeth that nobody touched were found besides
  expect(await bench.locator('[data-test=along]').count()).toBeGreaterThan(6)
  expect(Math.abs((await mm(bench)) - bike.gapMm)).toBeLessThan(0.8)
  await bench.locator('[data-test=note]').click()
  await bench.waitForURL(/stage\/gap/)
  await saved(bench)
  const entry = (await entriesOf(shop, number)).find(e => e.kind === 'gap')
  expect(entry).toMatchObject({ how: 'photo' })
  expect(entry?.photoSdMm).toBeLessThan(0.5)
})

test('held live, the hand is led into the plane, and the picture is taken there', async ({ bench, shop }) => {
  await measurePage(bench, shop, 'L')
  await bench.locator('[data-test=live-open]').click()
  await expect(bench.locator('[data-test=led]')).toHaveText('Past it: slowly back')
  await expect(bench.locator('[data-test=led]')).toHaveText('In the plane: take it')
  await bench.locator('[data-test=live-take]').click()
  await expect(bench.locator('[data-test=photo-touch]')).toBeVisible()
  await expect(bench.locator('[data-test=live]')).toHaveCount(0)
  await expect(bench.locator('[data-test=touch-next]')).toContainText('largest sprocket, upper end')
})

inAnyShop('without a camera the live view says so, and can be left for a file', async ({ bench, shop }) => {
  await measurePage(bench, shop, 'L')
  await bench.locator('[data-test=live-open]').click()
  await expect(bench.locator('[data-test=live-trouble]')).toContainText(/camera.*take the picture without/)
  await expect(bench.locator('[data-test=live-take]')).toBeDisabled()
  await bench.locator('[data-test=live-close]').click()
  await expect(bench.locator('[data-test=choose]')).toBeAttached()
})

test('brake pads in a photograph: which is nearer goes to the brake’s bench', async ({ bench, shop }) => {
  const number = await measurePage(bench, shop, 'frontPads')
  const drawn = await bench.evaluate(() => {
    const canvas = document.createElement('canvas')
    canvas.width = 3200
    canvas.height = 1800
    const at = canvas.getContext('2d')!
    at.fillStyle = '#444'
    at.fillRect(0, 0, 3200, 1800)
    at.fillStyle = '#bbb' // the rim, 800 px across; pads 40 and 88 px from it
    at.fillRect(1200, 200, 800, 1400)
    at.fillStyle = '#111'
    at.fillRect(1000, 600, 160, 400)
    at.fillRect(2088, 600, 160, 400)
    return canvas.toDataURL('image/png').split(',')[1]!
  })
  await bench
    .locator('[data-test=choose]')
    .setInputFiles({ name: 'pads.png', mimeType: 'image/png', buffer: Buffer.from(drawn, 'base64') })
  const photo = bench.locator('[data-test=photo-touch]')
  await expect(photo).toBeVisible()
  const put = async (u: number) => {
    const box = (await photo.boundingBox())!
    await bench.mouse.click(box.x + (u / 3200) * box.width, box.y + (800 / 1800) * box.height)
  }
  await put(1600)
  await expect(bench.locator('[data-test=whole]')).toBeVisible()
  for (const u of [1160, 1200, 2000, 2088]) await put(u)
  await expect(bench.locator('[data-test=measured-pads]')).toHaveText('Left pad nearer')
  await bench.locator('[data-test=note]').click()
  await bench.waitForURL(/brakes\?brake=front/)
  await saved(bench)
  const seenAs = (await entriesOf(shop, number)).find(e => e.kind === 'brakeNearer')
  expect(seenAs).toMatchObject({ brake: 'front', nearer: 'left' })
})

test('a picture from far to the side says so and asks for one from the other; the two together tell', async ({
  bench,
  shop,
}) => {
  const number = await measurePage(bench, shop, 'offset', 12)
  await bench.locator(`[data-test=pulley-${scene(12, number, 1).bike.pulleyTeeth}]`).click() // somebody counted them
  const spread = async () => Number(/± ([\d.]+) mm/.exec(await bench.locator('.panel').innerText())![1])
  await bench.locator('[data-test=stand-in-camera]').click()
  await touchAll(bench, scene(12, number, 1).places)
  await expect(bench.locator('[data-test=oblique]')).toContainText('the frame’s side')
  await expect(bench.locator('[data-test=note]')).toHaveCount(0)
  // tips of the sprocket's teeth were found besides, on most of its side
  await expect.poll(() => bench.locator('[data-test=along]').count()).toBeGreaterThanOrEqual(8)
  const one = await spread()
  await bench.evaluate(() => {
    const on = { camera: true, cameraDeg: -12, microphone: true }
    localStorage.setItem('ocho-stand-ins', JSON.stringify(on))
    // as another tab would have it
    dispatchEvent(
      new StorageEvent('storage', { key: 'ocho-stand-ins', newValue: JSON.stringify(on), storageArea: localStorage }),
    )
  })
  await bench.locator('[data-test=stand-in-camera]').click()
  await expect(bench.locator('[data-test=touch-next]')).toBeVisible()
  await touchAll(bench, scene(-12, number, 2).places)
  await expect(bench.locator('[data-test=measured]')).toBeVisible()
  // half, as rounded on the page
  expect(await spread()).toBeLessThan(0.55 * one)
})

test('what is no picture, too small or too large is said in words, and the figure can be typed', async ({
  bench,
  shop,
}) => {
  await measurePage(bench, shop, 'gap')
  const choose = bench.locator('[data-test=choose]')
  const trouble = bench.locator('[data-test=no-picture]')
  await choose.setInputFiles({ name: 'a.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('not a picture') })
  await expect(trouble).toContainText('no picture')
  const png = 'iVBORw0KGgoAAAANSUhEUgAAAAoAAAAKCAIAAAACUFjqAAAAEklEQVR4nGP4TxAwjCoYVTCoFABXeMbFJ2nzJQAAAABJRU5ErkJggg=='
  await choose.setInputFiles({ name: 'b.png', mimeType: 'image/png', buffer: Buffer.from(png, 'base64') })
  await expect(trouble).toContainText(/pixels|no picture/)
  // made in the page: sent to the browser, so many bytes would take half a minute
  await choose.evaluate(input => {
    const picked = new DataTransfer()
    picked.items.add(new File([new Uint8Array(42 * 1024 * 1024)], 'c.jpg', { type: 'image/jpeg' }))
    ;(input as HTMLInputElement).files = picked.files
    input.dispatchEvent(new Event('change', { bubbles: true }))
  })
  await expect(trouble).toContainText('MB')
  await bench.locator('[data-test=back-to-bench]').click()
  await expect(bench.locator('[data-test=figure-typed]')).toBeVisible()
})

test('the microphone’s stand-in is listened to: cadence, clean, and both rubs by winding', async ({ bench, shop }) => {
  const number = await shop.takeIn('72')
  await shop.seeL(number)
  await openBench(bench, number)
  await withStandIns(bench, 0.5)
  await bench.locator('[data-test=lane-3]').click()
  await bench.locator('[data-test=heard-clean]').click()
  await settled(bench)
  await saved(bench)
  await bench.goto(`${process.env.OCHO_E2E_URL}/jobs/${number}/listen`)
  await bench.locator('[data-test=stand-in-microphone]').click()
  await expect(bench.locator('[data-test=standing]')).toBeVisible()
  await expect(bench.locator('[data-test=sounds]')).toHaveText(/clean/)
  const cadence = await bench.locator('[data-test=cadence]').innerText()
  expect(Math.abs(Number(/\d+/.exec(cadence)![0]) - 68)).toBeLessThanOrEqual(1)
  expect(await axeFinds(bench)).toEqual([])
  await bench.locator('[data-test=note-sound]').click()
  for (const way of ['out', 'out', 'out', 'out', 'in', 'in', 'in', 'in', 'in', 'in', 'in', 'in', 'in']) {
    await bench.locator(`[data-test=wind-${way}]`).click()
    await expect(bench.locator('[data-test=cadence]')).toBeVisible()
  }
  await expect(bench.locator('[data-test=edges]')).toContainText(/Rubs from .* eighths in; from .* eighths out/)
  await bench.locator('[data-test=note-edges]').click()
  await bench.waitForURL(/rear$/)
  await saved(bench)
  const kinds = (await entriesOf(shop, number)).map(e => e.kind)
  expect(kinds.filter(k => k === 'edge')).toHaveLength(2)
  expect(kinds).toContain('sounded')
})

test('a hub’s highest gear is heard as its wheel coasts; noted, it moves the odds and signs nothing', async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('75', null)
  const send = sender(bench, number, await shop.person('Ishbel'))
  await send({ kind: 'hubParts', parts: usualHubs().find(h => h.id === 'rod-3')!.parts })
  await bench.goto(`${process.env.OCHO_E2E_URL}/jobs/${number}/hub`)
  await withStandIns(bench, 0.5)
  const t = (name: string) => bench.locator(`[data-test=${name}]`)
  await t('hub-others').click()
  await t('hub-look-tick').click()
  await t('tick-listens').click()
  // news of something else in the job takes nothing from under the hand
  await send({ kind: 'brakeSeen', brake: 'front', check: 'noodle', outcome: 'out' })
  await expect(bench.getByRole('link', { name: /^Front brake/ })).not.toContainText('not begun')
  // no microphone here: the words say what to do, and the question is still there to be answered
  await t('tick-listen').click()
  await expect(t('mic-trouble')).toContainText('say what you hear as always')
  await expect(t('hub-saw-ticks')).toBeVisible()
  await t('tick-stand-in').click()
  await expect(t('tick-heard')).toHaveText(/ticks and runs free/i)
  await expect(t('tick-figures')).toContainText('8 to 1 for the highest gear')
  expect(await axeFinds(bench)).toEqual([])
  await t('tick-note').dblclick()
  await saved(bench)
  expect((await entriesOf(shop, number)).filter(e => e.kind === 'hubSounded')).toEqual([
    { kind: 'hubSounded', tickOdds: 8 },
  ])
  await t('hub-look-tick').click()
  await expect(t('tick-noted')).toContainText('ticks and runs free')
})

/** A microphone that hears this over and over, as the browser gives one, once it is allowed. */
async function withMicrophone(page: Page, { samples, rateHz }: { samples: Float32Array; rateHz: number }) {
  const most = samples.reduce((a, b) => Math.max(a, Math.abs(b)), 0)
  const pcm = Buffer.from(Int16Array.from(samples, x => Math.round((x / most) * 20_000)).buffer).toString('base64')
  await page.evaluate(
    ([base64, rate]) => {
      const bytes = Uint8Array.from(atob(base64 as string), c => c.charCodeAt(0))
      const heard = new Int16Array(bytes.buffer)
      const given = new Promise<void>(allow => Object.assign(window, { allowMicrophone: allow }))
      navigator.mediaDevices.getUserMedia = async () => {
        await given
        const sound = new AudioContext()
        const buffer = sound.createBuffer(1, heard.length, rate as number)
        buffer.getChannelData(0).set(Float32Array.from(heard, x => x / 32_768))
        const source = new AudioBufferSourceNode(sound, { buffer, loop: true })
        const out = sound.createMediaStreamDestination()
        source.connect(out)
        source.start()
        Object.assign(window, { microphoneTrack: out.stream.getAudioTracks()[0] })
        return out.stream
      }
    },
    [pcm, rateHz] as const,
  )
}
const allowMicrophone = (page: Page) =>
  page.evaluate(() => (window as unknown as { allowMicrophone: () => void }).allowMicrophone())
const microphoneIs = (page: Page) =>
  page.evaluate(() => (window as unknown as { microphoneTrack?: MediaStreamTrack }).microphoneTrack?.readyState)

test('a microphone is heard as it is, and is let go: when told, and when allowed only after the page was left', async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('76')
  await openBench(bench, number)
  await bench.goto(`${process.env.OCHO_E2E_URL}/jobs/${number}/listen`)
  const t = (name: string) => bench.locator(`[data-test=${name}]`)
  const sprocketTeeth = Number(/\d+/.exec(await t('listen-gear').innerText())![0])
  const ring = bench.getByRole('radio', { checked: true })
  const ringTeeth = Number(/\d+/.exec(await ring.innerText())![0])
  const sound = standInSound({ ringTeeth, sprocketTeeth }, { eighths: 0, way: 'out' })
  await withMicrophone(bench, sound)
  await t('listen').click()
  await allowMicrophone(bench)
  await expect(t('cadence')).toBeVisible({ timeout: 20_000 })
  expect(Math.abs(Number(/\d+/.exec(await t('cadence').innerText())![0]) - 68)).toBeLessThanOrEqual(2)
  await expect(t('sounds')).toHaveText(/clean/)
  expect(await microphoneIs(bench)).toBe('live')
  await t('stop-listening').click()
  expect(await microphoneIs(bench)).toBe('ended')
  // asked again, and left before it is allowed: nobody listens any more
  await withMicrophone(bench, sound)
  await t('listen').click()
  await t('back-to-bench').click()
  await bench.waitForURL(/rear$/)
  await allowMicrophone(bench)
  await expect.poll(() => microphoneIs(bench)).toBe('ended')
})

test('without a microphone it says what to do', async ({ bench, shop }) => {
  const number = await shop.takeIn('73')
  await openBench(bench, number)
  await bench.goto(`${process.env.OCHO_E2E_URL}/jobs/${number}/listen`)
  await bench.locator('[data-test=listen]').click()
  await expect(bench.locator('[data-test=mic-trouble]')).toContainText('say what you hear as always')
})

test('a pedal is taught in one step and answers for the hand; off, it does nothing', async ({ bench, shop }) => {
  const number = await shop.takeIn('74')
  await shop.seeL(number)
  await openBench(bench, number)
  await bench.goto(`${process.env.OCHO_E2E_URL}/devices`)
  await bench.locator('[data-test=teach-1]').click()
  await bench.keyboard.press('F9')
  await expect(bench.locator('[data-test=taught]')).toContainText('F9: Heard clean')
  expect(await axeFinds(bench)).toEqual([])
  await openBench(bench, number)
  await bench.waitForSelector('[data-hands=on]')
  const shifts = async () => (await entriesOf(shop, number)).filter(e => e.kind === 'shift').length
  await bench.keyboard.press('F9')
  await saved(bench)
  await expect.poll(shifts).toBe(1)
})

test('a dial gauge that streams fills the hanger’s clock from the devices’ page', async ({ bench, shop }) => {
  const number = await shop.takeIn('75')
  await openBench(bench, number)
  const devices = await bench.context().newPage()
  await devices.goto(`${process.env.OCHO_E2E_URL}/devices`)
  await ready(devices)
  await bench.goto(`${process.env.OCHO_E2E_URL}/jobs/${number}/stage/hanger`)
  await expect(bench.locator('[data-test=gap]')).toBeVisible()
  await bench.waitForLoadState('networkidle')
  await bench.waitForSelector('[data-hands=on]')
  for (let i = 0; i < 4; i++) {
    await devices.locator('[data-test=play-dial]').click()
    await expect(devices.locator('[data-test=played]')).toContainText('mm')
  }
  await expect(bench.locator('[data-test=plan]')).toBeVisible()
  await expect(bench.locator('[aria-live=polite]').last()).toContainText('stand-in')
})

test('a torque wrench’s peaks go to the bolts in turn, judged; never into a line of millimetres', async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('76')
  await openBench(bench, number)
  const devices = await bench.context().newPage()
  await devices.goto(`${process.env.OCHO_E2E_URL}/devices`)
  await ready(devices)
  await bench.goto(`${process.env.OCHO_E2E_URL}/jobs/${number}/stage/gap`)
  await expect(bench.locator('[data-test=figure-typed]')).toBeVisible()
  await bench.waitForLoadState('networkidle')
  await bench.waitForSelector('[data-hands=on]')
  const play = () => devices.locator('[data-test=play-torque]').click()
  await play()
  await expect(bench.locator('[aria-live=polite]').last()).toContainText('no line waits for 9.1 N·m')
  await expect(bench.locator('[data-test=figure-typed]')).toHaveValue('')
  await bench.goto(`${process.env.OCHO_E2E_URL}/jobs/${number}/stage/prove`)
  await expect(bench.locator('[data-test=torqued]')).toBeVisible()
  await bench.waitForLoadState('networkidle')
  await bench.waitForSelector('[data-hands=on]')
  const peak = bench.locator('[data-test=peak]')
  await play()
  await expect(peak).toContainText('5.4 N·m: too slack')
  await play()
  await expect(peak).toContainText('2.2 N·m: too slack')
  await play()
  await expect(peak).toContainText('8.6 N·m: as it should be')
  await expect(bench.locator('[data-test=torque-hanger-bolt]')).toContainText('8.6 of')
  await bench.locator('[data-test=torqued]').click()
  await saved(bench)
  const told = (await storedEvents(shop, number)).map(e => e.body as { kind: string; peaksNm?: object })
  expect(told.find(e => e.kind === 'torqued')?.peaksNm).toEqual({ 'hanger-bolt': 8.6 })
})

test('a torque wrench on a serial line: its highest before the hand lets go, at the bolt that is next', async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('78')
  // the far end of the line, in the test's hand
  await bench.addInitScript(() => {
    const far = { baud: 0, closed: 0, say: (_: string) => {}, unplug: () => {} }
    Object.assign(window, { far })
    const port = {
      readable: null as ReadableStream<Uint8Array> | null,
      open({ baudRate }: { baudRate: number }) {
        far.baud = baudRate
        port.readable = new ReadableStream({
          start(line) {
            far.say = text => line.enqueue(new TextEncoder().encode(text))
            far.unplug = () => line.error(new Error('gone'))
          },
        })
        return Promise.resolve()
      },
      close: () => Promise.resolve(void far.closed++),
    }
    Object.defineProperty(navigator, 'serial', { value: { requestPort: () => Promise.resolve(port) } })
  })
  const say = (...lines: string[]) =>
    bench.evaluate(ls => ls.forEach(l => (window as unknown as { far: { say(t: string): void } }).far.say(l)), lines)
  await openBench(bench, number)
  await bench.goto(`${process.env.OCHO_E2E_URL}/devices`)
  await ready(bench)
  await bench.locator('[data-test=speed-19200]').click()
  await bench.locator('[data-test=line-connect]').click()
  await expect(bench.locator('[data-test=line-on]')).toContainText('Torque wrench is on the line')
  expect(await bench.evaluate(() => (window as unknown as { far: { baud: number } }).far.baud)).toBe(19_200)
  await say('#!\n', 'zz\n', '<<\n')
  await expect(bench.locator('[data-test=line-trouble]')).toContainText('no figure')
  await say('80.2 lbf\n')
  await expect(bench.locator('[data-test=line-trouble]')).toContainText('It says lbf: set it to N·m')
  // cut in two on its way; the peak is told when it is let go
  await say('T 3.', '1 Nm\r\nT 8.6 Nm\r\nT 8.', '2 Nm\r\nT 0.0 Nm\r\n')
  await expect(bench.locator('[data-test=line-trouble]')).toHaveCount(0)
  await expect(bench.locator('[data-test=line-on]')).toContainText('8.6 N·m')
  // it stays open from page to page, and goes to the bolt that is next
  await bench.getByRole('link', { name: 'Ocho, to the Floor' }).click()
  await bench.getByRole('link', { name: 'Marram quay' }).first().click()
  await bench.locator('[data-test=stage-prove]').click()
  await expect(bench.locator('[data-test=torqued]')).toBeVisible()
  // the stage as the server knows it, not as it was kept: what is said before it is drawn anew would be gone
  await saved(bench)
  await bench.waitForLoadState('networkidle')
  await bench.waitForSelector('[data-hands=on]')
  await say('5.1\n', '2.2\n', '0.0\n')
  await expect(bench.locator('[data-test=peak]')).toContainText('5.1 N·m')
  // pulled out, the page of devices says so
  await bench.evaluate(() => (window as unknown as { far: { unplug(): void } }).far.unplug())
  await bench.getByRole('link', { name: 'Ocho, to the Floor' }).click()
  // a menu opened on the page that is left closes with it
  await expect(bench.getByRole('heading', { name: 'Stands' })).toBeVisible()
  await bench.locator('[data-test=person]').click()
  await bench.locator('[data-test=devices]').click()
  await expect(bench.locator('[data-test=line-trouble]')).toContainText('The line ended')
})

test('without serial lines, or with none chosen, the devices’ page says what else there is', async ({
  bench,
  shop,
}) => {
  await openBench(bench, await shop.takeIn('79'))
  await bench.addInitScript(() =>
    Object.defineProperty(navigator, 'serial', { value: undefined, configurable: true, writable: true }),
  )
  await bench.goto(`${process.env.OCHO_E2E_URL}/devices`)
  await ready(bench)
  await bench.locator('[data-test=line-connect]').click()
  await expect(bench.locator('[data-test=line-trouble]')).toContainText('types like a keyboard')
  const chooseNone = () => Promise.reject(new DOMException('none', 'NotFoundError'))
  await bench.evaluate(`navigator.serial = { requestPort: ${chooseNone.toString()} }`)
  await bench.locator('[data-test=line-connect]').click()
  await expect(bench.locator('[data-test=line-trouble]')).toContainText('No line was chosen')
})

inAnyShop('outside the demo’s shop no stand-in plays, though this tablet had them on', async ({ bench, shop }) => {
  const number = await measurePage(bench, shop, 'L')
  await expect(bench.locator('[data-test=choose]')).toBeAttached()
  await expect(bench.locator('[data-test=stand-in-camera]')).toHaveCount(0)
  await bench.goto(`${process.env.OCHO_E2E_URL}/devices`)
  await expect(bench.locator('[data-test=teach-1]')).toBeVisible()
  await expect(bench.locator('[data-test=stand-ins]')).toHaveCount(0)
  await bench.goto(`${process.env.OCHO_E2E_URL}/jobs/${number}/stage/hanger`)
  await ready(bench)
  // one of another tab, where the demo's shop is still open; said again until the page listens
  await expect(async () => {
    await bench.evaluate(() => {
      const channel = new BroadcastChannel('ocho-devices')
      channel.postMessage({ device: 'dial', value: 21.4, standIn: true })
    })
    await expect(bench.locator('[aria-live=polite]').last()).toContainText('demo’s shop only', { timeout: 1_000 })
  }).toPass()
  await expect(bench.getByText('21.4')).toHaveCount(0)
})

test('a place is put down and moved by keys alone', async ({ bench, shop }) => {
  await measurePage(bench, shop, 'offset')
  await bench.locator('[data-test=stand-in-camera]').click()
  await bench.locator('[data-test=put-middle]').focus()
  await bench.keyboard.press('Enter')
  const placed = bench.locator('[data-test=at-upper]')
  await expect(placed).toHaveAttribute('transform', 'translate(1000 750)')
  await bench.keyboard.press('ArrowLeft')
  await bench.keyboard.press('Shift+ArrowDown')
  await expect(placed).toHaveAttribute('transform', 'translate(999 790)')
  await expect(bench.locator('[data-test=touch-next]')).toContainText('lower end')
})
