import { connect as dial, createServer, type AddressInfo, type Server, type Socket } from 'node:net'
import { startServer, type RunningServer } from '../ops/server'
import { throwawayPooler } from '../ops/testPooler'
import { expect, openBench, press, saved, settled, signIn, storedEvents, test } from './shop'

/* Two server processes on one database are one Ocho: straight, and through a pooler in transaction mode. */

/** One address before several servers: each connection goes to the first that answers, in turn. */
async function oneAddress(ports: readonly number[]): Promise<{ url: string; end(): Promise<void> }> {
  let turn = 0
  const open = new Set<Socket>()
  const server: Server = createServer(socket => {
    open.add(socket)
    socket.on('error', () => undefined).on('close', () => open.delete(socket))
    const tryFrom = (left: readonly number[]) => {
      if (!left.length) return void socket.destroy()
      const up = dial(left[0]!, '127.0.0.1', () => {
        socket.pipe(up).pipe(socket)
        socket.on('close', () => up.destroy())
        up.on('close', () => socket.destroy())
      })
      let connected = false
      up.on('connect', () => (connected = true))
      up.on('error', () => (connected ? socket.destroy() : tryFrom(left.slice(1))))
    }
    turn++
    tryFrom(ports.map((_, i) => ports[(turn + i) % ports.length]!))
  })
  await new Promise<void>(resolve => server.listen(0, '127.0.0.1', resolve))
  return {
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    async end() {
      for (const socket of open) socket.destroy()
      await new Promise(resolve => server.close(resolve))
    },
  }
}

// straight, hints go the same way: that one server hears another without a pooler is tried below and in
// ops/line.test.ts
for (const through of ['a pooler'] as const)
  test(`two tablets on one job, each on a server of its own (${through}), see each other's taps; a killed server's tablets go on at the other`, async ({
    browser,
    shop,
  }) => {
    const appUrl = process.env.OCHO_E2E_APP!
    const pooler = await throwawayPooler(appUrl)
    const start = () => startServer({ appUrl: pooler.appUrl, port: 0, env: { OCHO_LISTEN_URL: appUrl } })
    const servers: RunningServer[] = await Promise.all([start(), start()])
    const front = await oneAddress(servers.map(s => s.port))
    const number = await shop.takeIn('71')
    const contexts = await Promise.all([browser.newContext(), browser.newContext()])
    try {
      const [one, two] = await Promise.all(contexts.map(c => c.newPage()))
      await signIn(one!, shop, { url: servers[0]!.url })
      await signIn(two!, shop, { url: servers[1]!.url, name: 'Moss' })
      await openBench(one!, number, servers[0]!.url)
      await openBench(two!, number, servers[1]!.url)
      const taps = () => two!.evaluate(() => performance.getEntriesByName('advice').length)
      const before = await taps()
      await press(one!, '4')
      await saved(one!)
      const began = Date.now()
      await expect.poll(taps, { timeout: 10_000 }).toBeGreaterThan(before)
      console.log(
        `${through}: a tap on one server was seen on the other's bench ${Date.now() - began} ms after it was saved`,
      )

      // behind one address: whoever works now is known to whichever server is asked next
      const shared = await contexts[0]!.newPage()
      await signIn(shared, shop, { url: front.url })
      const people = await shop.person('Moss')
      for (const pin of ['1357']) {
        const switched = await shared.request.post(`${front.url}/api/session/person`, { data: { person: people, pin } })
        expect(switched.status()).toBe(200)
        for (let i = 0; i < 6; i++) {
          const now = (await (await shared.request.get(`${front.url}/api/session`)).json()) as {
            person: { name: string }
          }
          expect(now.person.name).toBe('Moss')
        }
      }
      await openBench(shared, number, front.url)
      await press(shared, '3')
      await saved(shared)
      const kept = (await storedEvents(shop, number)).length
      await press(shared, '2')
      await servers[0]!.kill()
      await press(shared, '4')
      await saved(shared)
      await expect.poll(async () => (await storedEvents(shop, number)).length).toBe(kept + 2)
      await shared.reload()
      await settled(shared)
      const seqs = (await storedEvents(shop, number)).map(e => e.seq)
      expect(seqs).toEqual(seqs.map((_, i) => i + 1))
    } finally {
      for (const c of contexts) await c.close()
      await front.end()
      for (const s of servers) await s.kill()
      await pooler.stop()
    }
  })

test('a device signed out, and a person’s new PIN, count at every server at once', async ({ browser, shop }) => {
  const start = () => startServer({ appUrl: process.env.OCHO_E2E_APP!, port: 0 })
  const [one, two] = await Promise.all([start(), start()])
  const owner = await browser.newContext()
  const tablet = await browser.newContext()
  try {
    const ownerPage = await owner.newPage()
    await signIn(ownerPage, shop, { url: one.url })
    const page = await tablet.newPage()
    await signIn(page, shop, { url: two.url, name: 'Moss' })
    const who = async () => {
      const asked = await page.request.get(`${two.url}/api/session`)
      return asked.status() === 200
        ? ((await asked.json()) as { person: { name: string } | null }).person?.name
        : asked.status()
    }
    // asked often, so that the second server keeps it in mind
    for (let i = 0; i < 3; i++) expect(await who()).toBe('Moss')
    const moss = await shop.person('Moss')
    const renewed = await ownerPage.request.post(`${one.url}/api/shop/people/${moss}/secrets`, {
      data: { pin: '9999' },
    })
    expect(renewed.status()).toBe(200)
    await expect.poll(who, { intervals: [50], timeout: 1_000 }).toBeUndefined()
    const devices = (await (await ownerPage.request.get(`${one.url}/api/shop/devices`)).json()) as {
      id: string
      current: boolean
    }[]
    const other = devices.find(d => !d.current)!
    await who()
    expect((await ownerPage.request.delete(`${one.url}/api/shop/devices/${other.id}`)).status()).toBe(200)
    await expect.poll(who, { intervals: [50], timeout: 1_000 }).toBe(401)
  } finally {
    await owner.close()
    await tablet.close()
    await one.kill()
    await two.kill()
  }
})
