import { spawn, type ChildProcess } from 'node:child_process'
import { chmodSync, existsSync, mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test, type Page } from '@playwright/test'
import { LAUNCHER } from '../ops/bundle'
import { freePort } from '../ops/ports'
import { isHealthy, ROOT } from '../ops/server'
import { DEMO_PEOPLE, DEMO_SHOP } from '../demo/people'

test.describe.configure({ mode: 'serial', timeout: 180_000 })

let data: string
let port: number
test.beforeAll(async () => {
  data = mkdtempSync(join(tmpdir(), 'ocho-launch-'))
  chmodSync(data, 0o711) // the user postgres passes through
  port = await freePort()
})
test.afterAll(() => {
  rmSync(data, { recursive: true, force: true })
})

type Launched = { child: ChildProcess; out(): string; code: Promise<number | null> }

function launch(...args: string[]): Launched {
  const child = spawn(process.execPath, [LAUNCHER, ...args], {
    cwd: ROOT,
    env: { ...process.env, OCHO_DATA: data, OCHO_PORT: String(port) },
    detached: true,
  })
  let text = ''
  for (const stream of [child.stdout!, child.stderr!])
    stream.on('data', (chunk: Buffer) => {
      text += chunk.toString()
    })
  return { child, out: () => text, code: new Promise(resolve => child.once('exit', resolve)) }
}
async function started(l: Launched, patienceMs = 40_000): Promise<string> {
  await expect.poll(l.out, { timeout: patienceMs }).toContain('Ctrl-C stops it')
  return /http:\/\/127\.0\.0\.1:\d+/.exec(l.out())![0]
}
/** Ctrl-C as a terminal sends it, to the launcher's whole group. */
const interrupt = (l: Launched) => process.kill(-l.child.pid!, 'SIGINT')
const clusterPid = (kind: string) =>
  Number(readFileSync(join(data, kind, 'cluster', 'postmaster.pid'), 'utf8').split('\n')[0])
const alive = (pid: number) => {
  try {
    process.kill(pid, 0)
    return true
  } catch {
    return false
  }
}

async function signIn(page: Page, url: string, shop: string, name: string, password: string) {
  expect((await page.request.post(`${url}/api/sign-in`, { data: { shop, name, password } })).status()).toBe(200)
}

test("a first run makes the shop and its owner by the terminal's code; Ctrl-C stops everything", async ({ page }) => {
  const ocho = launch('start')
  const url = await started(ocho)
  const code = /type the code (\S+)/.exec(ocho.out())![1]
  await page.goto(url)
  await expect(page).toHaveURL(/first-run/)
  await page.waitForSelector('[data-hydrated]')
  await page.getByLabel('Code from the terminal').fill('WRONG-1')
  await page.getByLabel('Shop name').fill('Pier End <Cycles>')
  await page.getByLabel('Shop code').fill('pier-end')
  await page.getByLabel('Your name').fill('Oona')
  await page.getByLabel('Password').fill('short')
  await page.getByLabel('PIN').fill('12')
  await page.getByRole('button', { name: 'Set up' }).click()
  await expect(page.getByText('Password needs at least 10 characters')).toBeVisible()
  await expect(page.getByText('PIN: type 4 to 8 digits')).toBeVisible()
  await page.getByLabel('Password').fill('long enough now')
  await page.getByLabel('PIN').fill('9753')
  await page.getByRole('button', { name: 'Set up' }).click()
  await expect(page.getByRole('alert')).toContainText('not the code the terminal shows')
  await page.getByLabel('Code from the terminal').fill(code)
  await page.getByRole('button', { name: 'Set up' }).click()
  await expect(page.getByRole('heading', { name: 'Pier End <Cycles>' })).toBeVisible()
  expect((await page.request.post(`${url}/api/first-run`, { data: {} })).status()).toBe(409)
  const postgres = clusterPid('shop')
  interrupt(ocho)
  expect(await ocho.code).toBe(0)
  expect(ocho.out()).toContain('stopped')
  expect(alive(postgres)).toBe(false)
  expect(existsSync(join(data, 'shop', 'cluster', 'postmaster.pid'))).toBe(false)
})

test('a start after kill -9 of everything takes up the same data, and a backup restores', async ({ page }) => {
  let ocho = launch('start')
  let url = await started(ocho)
  expect(ocho.out()).not.toContain('first run')
  await signIn(page, url, 'pier-end', 'oona', 'long enough now')
  const postgres = clusterPid('shop')
  const server = Number(readFileSync(join(data, 'shop', 'server.pid'), 'utf8'))
  process.kill(-ocho.child.pid!, 'SIGKILL')
  for (const pid of [server, postgres]) process.kill(pid, 'SIGKILL')
  await ocho.code

  ocho = launch('start')
  url = await started(ocho)
  await signIn(page, url, 'pier-end', 'Oona', 'long enough now')
  // the database and then the server die: each is back by itself, where it was
  for (const [pid, what] of [
    [clusterPid('shop'), 'the database'],
    [Number(readFileSync(join(data, 'shop', 'server.pid'), 'utf8')), 'the server'],
  ] as const) {
    process.kill(pid, 'SIGKILL')
    await expect.poll(ocho.out, { timeout: 10_000 }).toContain(`${what} is back`)
    await expect.poll(async () => (await page.request.get(`${url}/api/session`)).status()).toBe(200)
  }
  // a second start on the same folder ends, and the first goes on
  const second = launch('start')
  expect(await second.code).toBe(1)
  expect(second.out()).toContain('runs on')
  expect(second.out()).toContain('already')
  expect((await page.request.get(`${url}/api/health`)).status()).toBe(200)

  // a backup while it runs, through the command and from the shop page
  const file = join(data, 'kept', 'ocho.backup')
  const backup = launch('backup', file)
  expect(await backup.code, backup.out()).toBe(0)
  expect(statSync(file).mode & 0o777).toBe(0o600)
  expect((await page.request.get(`${url}/api/health`)).status()).toBe(200)
  const verified = launch('verify')
  expect(await verified.code, verified.out()).toBe(0)
  await page.goto(`${url}/shop`)
  await page.waitForSelector('[data-hydrated]')
  await expect(page.locator('[data-test=last-good]')).toHaveText('none yet')
  await page.locator('[data-test=backup-now]').click()
  await expect(page.locator('[data-test=last-good]')).toContainText('MB', { timeout: 40_000 })
  await expect(page.locator('[data-test=trail]')).toContainText('Oona asked for a backup')
  interrupt(ocho)
  expect(await ocho.code).toBe(0)

  // a port that is taken is an error, and not another port
  const other = createServer().listen(port, '127.0.0.1')
  const taken = launch('start')
  expect(await taken.code).toBe(1)
  expect(taken.out()).toContain(`port ${port} is taken`)
  await new Promise(resolve => other.close(resolve))

  rmSync(join(data, 'shop'), { recursive: true, force: true })
  const restore = launch('restore', file)
  expect(await restore.code, restore.out()).toBe(0)
  expect(restore.out()).toContain('1 shop(s)')
  const missing = launch('restore', join(data, 'nowhere'))
  expect(await missing.code).toBe(1)
  expect(missing.out()).toContain('there is no file')

  ocho = launch('start')
  url = await started(ocho)
  await signIn(page, url, 'pier-end', 'Oona', 'long enough now')
  interrupt(ocho)
  await ocho.code
})

test('started for tablets, it answers over HTTPS on every address, says so, and stops both', async () => {
  const ports = { OCHO_LAN_PORT: String(await freePort()), OCHO_JOIN_PORT: String(await freePort()) }
  Object.assign(process.env, ports)
  const lan = launch('start', '--lan')
  try {
    await started(lan)
    await expect.poll(lan.out, { timeout: 60_000 }).toContain('tablets reach this machine at https://')
    const folder = join(data, 'shop')
    const authority = readFileSync(join(folder, 'tls', 'authority.pem'), 'utf8')
    expect(statSync(join(folder, 'tls', 'authority.key')).mode & 0o777).toBe(0o600)
    expect(await isHealthy(`https://127.0.0.1:${ports.OCHO_LAN_PORT}`, authority)).toBe(true)
    expect(await isHealthy(`https://127.0.0.1:${ports.OCHO_LAN_PORT}`, authority.replace(/[A-Z]{4}/, 'AAAA'))).toBe(
      false,
    )
    const plain = await fetch(`http://127.0.0.1:${ports.OCHO_JOIN_PORT}/`)
    expect(await plain.text()).toContain('Trust the shop')
    const status = launch('status')
    expect(await status.code).toBe(0)
    expect(status.out()).toMatch(/for tablets +https:\/\//)
    const strange = launch('start', '--wan')
    expect(await strange.code).toBe(1)
    expect(strange.out()).toContain('there is --lan')
    const tablets = Number(readFileSync(join(folder, 'server.lan.pid'), 'utf8'))
    interrupt(lan)
    expect(await lan.code).toBe(0)
    expect(alive(tablets)).toBe(false)
    expect(existsSync(join(folder, 'running.json'))).toBe(false)
    // the switch stays as it was left
    expect(JSON.parse(readFileSync(join(folder, 'reach.json'), 'utf8'))).toMatchObject({ lan: true })
  } finally {
    for (const name of Object.keys(ports)) Reflect.deleteProperty(process.env, name)
    rmSync(join(data, 'shop', 'reach.json'), { force: true })
  }
})

test('the demo shows its secrets at the door, fills the Floor, and each open job has its own trouble', async ({
  page,
}) => {
  const ocho = launch('demo')
  const url = await started(ocho, 100_000) // two years of visits are built on the way
  expect(ocho.out()).toContain('past visits')
  await page.goto(`${url}/sign-in`)
  await page.waitForSelector('[data-hydrated]')
  for (const p of DEMO_PEOPLE) await expect(page.locator('[data-test=demo-people]')).toContainText(p.pin)
  await page.getByRole('button', { name: 'Ishbel' }).click()
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('heading', { name: DEMO_SHOP.name })).toBeVisible()
  const stand = (tag: string) => page.locator(`[data-test=stand-${tag}]`)
  await expect(stand('41')).toContainText(/Barrel (out|in)/)
  await expect(stand('46')).toContainText('Renew the cable')
  await expect(stand('49')).toContainText(/Gauge the hanger.*hanger \d/s)
  await expect(stand('52')).toContainText('Clamp again')
  for (const tag of ['47', '48', '50', '51']) await expect(page.locator(`[data-test=tag-${tag}]`)).toBeVisible()
  for (const bike of ['Petrel launch coach', 'Marram parcel 2', 'Gannet tourer'])
    await expect(page.getByRole('link', { name: new RegExp(`^${bike}`) })).toBeVisible()

  // two taps move a bike: it, then where
  await page.getByRole('button', { name: 'Put on a stand' }).first().click()
  await expect(page.getByText('Every stand is taken')).toBeVisible()
  await page.getByRole('button', { name: 'Leave it' }).click()
  await page.getByRole('button', { name: 'Move', exact: true }).first().click()
  await page.getByRole('button', { name: 'Back to the rail' }).click()
  await expect(page.locator('[data-test=tag-41]')).toBeVisible()
  // now they are six, and hang from rails by their promise
  await page.getByRole('button', { name: 'Move tag 47' }).click()
  await page.locator('[data-test=to-stand-1]').click()
  await expect(stand('47')).toBeVisible()
  interrupt(ocho)
  await ocho.code
})
