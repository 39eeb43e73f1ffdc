import type { Page } from '@playwright/test'
import { sql } from 'kysely'
import { inShop } from '../server/db/connect'
import { expect, ready, SERVER, signIn, test } from './shop'

/* What an owner does: asked again by password after a while, written down, and a customer's wish to be forgotten. */

const t = (page: Page, id: string) => page.locator(`[data-test="${id}"]`)

test('an owner’s act asks for the password after a quarter of an hour, by page and request; a wrong one does nothing', async ({
  page,
  shop,
}) => {
  await signIn(page, shop, { name: 'Ishbel' })
  const later = () =>
    inShop(shop.db, shop.id, tx =>
      sql`update session set confirmed_at = now() - interval '16 minutes' where shop = ${shop.id}`.execute(tx),
    )
  await later()
  // what is kept of a session for a few seconds has gone
  await expect
    .poll(async () => (await page.request.post(`${SERVER()}/api/shop/people`, { data: {} })).status())
    .toBe(403)
  for (const [path, data] of [
    ['shop/people', { name: 'Nobody', role: 'owner', pin: '1234' }],
    ['shop/schools', { of: 'shop', choice: {} }],
    ['shop/nights', {}],
    ['standards/import?take=all&kind=csv', 'x'],
  ] as const)
    expect((await page.request.post(`${SERVER()}/api/${path}`, { data })).status(), path).toBe(403)
  expect((await page.request.get(`${SERVER()}/api/standards/export?as=json`)).status()).toBe(403)
  // looking is no act
  expect((await page.request.get(`${SERVER()}/api/shop/audit`)).status()).toBe(200)

  await page.goto(`${SERVER()}/shop`)
  await ready(page)
  await page.getByLabel('Name').fill('Tilly')
  await page.getByLabel('PIN').fill('8642')
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  const dialog = page.getByRole('dialog')
  await expect(dialog).toContainText('Your password once more')
  await dialog.getByLabel(/Password of/).fill('not this one')
  await t(page, 'confirm-owner').click()
  await expect(dialog.getByRole('alert')).toContainText('That is not it')
  await dialog.getByRole('button', { name: 'Not now' }).click()
  await expect(dialog).toBeHidden()
  await expect(page.getByText('Type your password once more: this is an owner’s act')).toBeVisible()
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  const { DEMO_PEOPLE } = await import('../demo/people')
  await dialog.getByLabel(/Password of/).fill(DEMO_PEOPLE.find(p => p.name === 'Ishbel')!.password!)
  await t(page, 'confirm-owner').click()
  await expect(t(page, 'people-said')).toHaveText('Tilly was added as mechanic.')
  await expect(t(page, 'trail')).toContainText('Ishbel added a person: Tilly, mechanic')
  await expect(t(page, 'trail')).toContainText('Ishbel typed the password again')
})

test('somebody who takes the tablet over by name is asked, though an owner typed the password just before', async ({
  page,
  shop,
}) => {
  await signIn(page, shop, { name: 'Ishbel' })
  const { DEMO_PEOPLE } = await import('../demo/people')
  const other = DEMO_PEOPLE.find(p => p.role === 'mechanic')!
  const be = (name: string, pin: string) =>
    shop.person(name).then(person => page.request.post(`${SERVER()}/api/session/person`, { data: { person, pin } }))
  expect((await be(other.name, other.pin)).status()).toBe(200)
  expect((await page.request.get(`${SERVER()}/api/session/confirm`)).status()).toBe(403)
  expect((await be('Ishbel', DEMO_PEOPLE.find(p => p.name === 'Ishbel')!.pin)).status()).toBe(200)
  expect((await page.request.get(`${SERVER()}/api/session/confirm`)).status()).toBe(403)
  // guesses are counted
  const tries = await Promise.all(
    Array.from({ length: 40 }, () =>
      page.request.post(`${SERVER()}/api/session/confirm`, { data: { secret: 'guess' } }),
    ),
  )
  expect(tries.filter(r => r.status() === 401).length).toBeLessThanOrEqual(6)
  expect(tries.every(r => [401, 429].includes(r.status()))).toBe(true)
})

test('a customer’s data goes out as a file, and is erased once their bike has left', async ({ page, shop }) => {
  await signIn(page, shop, { name: 'Ishbel' })
  const number = await shop.takeIn('71')
  const job = (await (await page.request.get(`${SERVER()}/api/jobs/${number}`)).json()) as { bike: { id: string } }
  await page.goto(`${SERVER()}/bikes/${job.bike.id}`)
  await ready(page)
  const download = page.waitForEvent('download')
  await t(page, 'customer-out').click()
  const file = await (await download).createReadStream()
  let text = ''
  for await (const part of file) text += String(part)
  expect(JSON.parse(text)).toMatchObject({
    customer: { name: 'Hob Tarrant', contact: '085 555 0100' },
    bikes: [{ name: 'Marram quay', frameNumber: 'F-71', visits: [{ complaint: 'slow in the middle' }] }],
  })
  await t(page, 'customer-erase').click()
  await t(page, 'customer-erase-sure').click()
  await expect(t(page, 'privacy').getByRole('alert')).toContainText(`Job ${number} of this customer is open`)
  await inShop(shop.db, shop.id, tx =>
    tx.updateTable('job').set({ closed_at: new Date(), place: 'gone' }).where('shop', '=', shop.id).execute(),
  )
  await t(page, 'customer-erase').click()
  await t(page, 'customer-erase-sure').click()
  await expect(page.locator('header')).toContainText('Erased customer')
  await expect(t(page, 'privacy')).toHaveCount(0)
  const found = await (await page.request.get(`${SERVER()}/api/bikes?q=Tarrant`)).text()
  expect(found).not.toContain('Tarrant')
})

test('a mechanic sees none of an owner’s pages’ parts, by page or request', async ({ page, shop }) => {
  await signIn(page, shop, { name: 'Ishbel' })
  const { DEMO_PEOPLE } = await import('../demo/people')
  const other = DEMO_PEOPLE.find(p => p.role === 'mechanic')!
  await page.request.post(`${SERVER()}/api/session/person`, {
    data: { person: await shop.person(other.name), pin: other.pin },
  })
  await page.goto(`${SERVER()}/shop`)
  await ready(page)
  for (const id of ['nights', 'trail', 'new-person']) await expect(t(page, id)).toHaveCount(0)
  for (const path of ['shop/audit', 'shop/nights', 'shop/devices', 'session/confirm'])
    expect((await page.request.get(`${SERVER()}/api/${path}`)).status(), path).toBe(403)
})
