import { expect, type Page } from '@playwright/test'
import { toothedEndsOf, type Disc } from '#core/bench/render'
import { teethTouched } from '#core/bench/sideBench'
import { standInScene } from '#core/bench/standInCamera'
import { setupOf, type RearParts } from '#core/rear/parts'
import { geometryOf } from '#core/response/setup'
import { seen, type Pixel } from '#core/sight/camera'
import { SIDE_PLACES } from '#core/sight/measures'
import { nearestOf, onRim } from '#core/sight/rim'

/*
 * The stand-in camera's pictures as a test knows them: what they show, and a hand that touches their places.
 */

type Behind = { viewDeg: number; seed: number; shot: number; pushedTo?: number; click?: number }

/** What the stand-in camera shows from behind, the chain on the smallest unless said, and where its places lie. */
export function sceneBehind(parts: RearParts, { viewDeg, seed, shot, click = 0, pushedTo = click }: Behind) {
  const setup = setupOf(parts)!
  const g = geometryOf(setup)
  const { bike, camera } = standInScene({
    teeth: setup.teeth,
    placeMm: g.placeMm,
    click,
    pushedTo,
    from: 'behind',
    viewDeg,
    seed,
    shot,
  })
  const largest = bike.discs[setup.teeth.length - 1]!
  const ends = toothedEndsOf(camera.lens, camera.pose, largest)
  const pulley = toothedEndsOf(camera.lens, camera.pose, bike.pulley)
  const near = seen(camera.lens, camera.pose, nearestOf(camera.pose, largest))
  return {
    bike,
    placeMm: g.placeMm,
    places: {
      upper: ends.upper,
      lower: ends.lower,
      pulleyLower: pulley.lower,
      pulleyUpper: pulley.upper,
      near,
    } satisfies Record<string, Pixel>,
  }
}
/** What it shows from the drive side, the chain on the largest, and tips of its teeth. */
export function sceneBeside(parts: RearParts, seed: number) {
  const setup = setupOf(parts)!
  const { placeMm } = geometryOf(setup)
  const n = setup.teeth.length
  const ask = { teeth: setup.teeth, placeMm, click: n - 1, from: 'side', viewDeg: 0.5, seed, shot: 1 } as const
  const { side, camera } = standInScene(ask)
  const tip = (rim: Disc, tooth: number) =>
    seen(camera.lens, camera.pose, onRim(rim, (2 * Math.PI * tooth) / rim.teeth))
  const { sprocket, pulley } = teethTouched(side!)
  const tips = [...sprocket.map(k => tip(side!.sprocket, k)), ...pulley.map(k => tip(side!.pulley, k))]
  const places = Object.fromEntries(tips.map((at, i) => [SIDE_PLACES[i]!.id, at]))
  return { bike: side!.bike, places }
}
const WIDTH_PX = 2000
const HEIGHT_PX = 1500

/**
 * Touches places of a picture, a little off, but those that were found by themselves; the first touch in the whole
 * picture only goes closer.
 */
export async function touchAll(page: Page, places: Record<string, Pixel>) {
  const photo = page.locator('[data-test=photo-touch]')
  const onScreen = async ([u, v]: Pixel) => {
    const box = (await photo.boundingBox())!
    return { x: box.x + (u / WIDTH_PX) * box.width, y: box.y + (v / HEIGHT_PX) * box.height }
  }
  const put = async (place: Pixel) => {
    const { x, y } = await onScreen(place)
    await page.mouse.click(x, y)
  }
  const all = Object.values(places)
  const middleOf = (i: 0 | 1) => all.reduce((s, p) => s + p[i], 0) / all.length
  await put([middleOf(0), middleOf(1)])
  await expect(page.locator('[data-test=whole]')).toBeVisible()
  const off = ([u, v]: Pixel): Pixel => [u + 1.5, v + 1]
  for (const id of Object.keys(places)) {
    const mark = page.locator(`[data-test=at-${id}]`)
    if (await mark.count()) continue
    // what the closer view leaves out is gone to by way of the whole picture
    const [at, shown] = [await onScreen(places[id]!), (await photo.locator('..').boundingBox())!]
    if (at.y < shown.y + 8 || at.y > shown.y + shown.height - 8) {
      await page.locator('[data-test=whole]').click()
      await put(places[id]!)
      await expect(page.locator('[data-test=whole]')).toBeVisible()
    }
    await put(off(places[id]!))
    await expect(mark).toBeVisible()
    // edges, and the other places from it, are found
    await expect(page.locator('[data-test=photo]')).toHaveAttribute('aria-busy', 'false')
  }
  // where no edge stood out it is put right under the magnifier, to the pixel
  for (const [id, place] of Object.entries(places)) {
    const unsure = page.locator(`[data-test=at-${id}] [data-test=unsure]`)
    if (!(await unsure.count())) continue
    const from = await onScreen(off(place))
    await page.mouse.move(from.x, from.y)
    await page.mouse.down()
    await page.mouse.move(from.x, from.y + 6)
    await page.mouse.move(from.x - 1, from.y - 1)
    await page.mouse.up()
    await expect(unsure).toHaveCount(0)
  }
}
