import { createServer, get } from 'node:http'
import { connect, type AddressInfo } from 'node:net'
import { expect, makeShop, SERVER, test } from './shop'

test('of two hundred wrong PINs, passwords at once only the allowed number is judged; the shop’s own way in stays open', async ({
  bench,
  shop,
  browser,
}) => {
  const moss = await shop.person('Moss')
  const pins = await Promise.all(
    Array.from({ length: 200 }, (_, i) =>
      bench.request.post(`${SERVER()}/api/session/person`, {
        data: { person: moss, pin: String(2000 + i) },
        timeout: 60_000,
      }),
    ),
  )
  const answered = (list: { status(): number }[], status: number) => list.filter(r => r.status() === status).length
  expect([answered(pins, 401), answered(pins, 429)]).toEqual([6, 194])
  // the right one waits as well, and whoever works on goes on
  const right = await bench.request.post(`${SERVER()}/api/session/person`, { data: { person: moss, pin: '1357' } })
  expect(right.status()).toBe(429)
  expect((await bench.request.get(`${SERVER()}/api/session`)).ok()).toBe(true)

  const stranger = await browser.newContext()
  const passwords = await Promise.all(
    Array.from({ length: 50 }, (_, i) =>
      stranger.request.post(`${SERVER()}/api/sign-in`, {
        data: { shop: shop.code, name: 'Corm', password: `guess ${i}` },
        timeout: 60_000,
      }),
    ),
  )
  expect([answered(passwords, 401), answered(passwords, 429)]).toEqual([8, 42])
  await stranger.close()
})

test('a page of another site changes nothing; text that cannot be kept is refused at its field; the way back stays on this site', async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('81')
  const note = (data: unknown, headers: Record<string, string> = {}) =>
    bench.request.post(`${SERVER()}/api/jobs/${number}/notes`, { data, headers })
  expect((await note({ text: 'from elsewhere' }, { origin: 'https://elsewhere.example' })).status()).toBe(403)
  expect((await note({ text: 'from nowhere' }, { origin: 'null' })).status()).toBe(403)
  expect((await note({ text: 'from here' }, { origin: SERVER() })).ok()).toBe(true)
  for (const text of ['null \u0000 in it', 'half \ud800 of one']) {
    const answer = await note({ text })
    expect(answer.status()).toBe(400)
    expect(JSON.stringify(await answer.json())).toContain('cannot be kept')
  }
  const found = await bench.request.get(`${SERVER()}/api/bikes?q=%00`)
  expect(found.status()).toBe(400)

  const other = await makeShop(shop.db)
  for (const to of [
    '/\\evil.example',
    '//evil.example',
    '/%5Cevil.example',
    '/\t/evil.example',
    'https://evil.example',
  ]) {
    await bench.context().clearCookies()
    await bench.goto(`${SERVER()}/sign-in?to=${encodeURIComponent(to)}`)
    await bench.waitForSelector('[data-hydrated]')
    await bench.getByLabel('Shop code').fill(other.code)
    await bench.getByLabel('Name').fill('Moss')
    await bench.getByLabel('Password').fill('slack-tide-12')
    await bench.getByRole('button', { name: 'Sign in' }).click()
    await bench.waitForURL(url => !url.pathname.startsWith('/sign-in'))
    expect(new URL(bench.url()).origin, to).toBe(new URL(SERVER()).origin)
  }
})

test('a page of another site that opens one here keeps no hold of it', async ({ bench }) => {
  const elsewhere = createServer((_, answer) => answer.setHeader('content-type', 'text/html').end('<p>elsewhere</p>'))
  await new Promise<void>(begun => elsewhere.listen(0, '127.0.0.1', begun))
  const { port } = elsewhere.address() as AddressInfo
  try {
    await bench.goto(`http://localhost:${port}/`)
    const opened = bench.context().waitForEvent('page')
    const held = await bench.evaluateHandle(url => window.open(url), `${SERVER()}/sign-in`)
    await (await opened).waitForSelector('h1')
    // a window that is held no more reads as closed
    expect(await held.evaluate(w => w!.closed)).toBe(true)
  } finally {
    elsewhere.close()
  }
})

test('a name that was made to lead here is not ours, for pages as for requests', async ({ bench, shop }) => {
  const number = await shop.takeIn('83')
  const cookie = (await bench.context().cookies()).map(c => `${c.name}=${c.value}`).join('; ')
  const { hostname, port } = new URL(SERVER())
  const by = (host: string, path: string) =>
    new Promise<{ status: number; text: string }>((resolve, reject) => {
      const asked = get({ hostname, port, path, headers: { host, cookie } }, answer => {
        let text = ''
        answer.on('data', (part: Buffer) => (text += String(part)))
        answer.on('end', () => resolve({ status: answer.statusCode ?? 0, text }))
      })
      asked.on('error', reject)
    })
  for (const host of ['bound-anew.example', `bound-anew.example:${port}`, '127.0.0.1.bound.example', 'local host'])
    for (const path of ['/', '/sign-in', `/api/jobs/${number}`, '/api/health']) {
      const { status, text } = await by(host, path)
      expect([400, 421], `${host} ${path}`).toContain(status)
      expect(text, `${host} ${path}`).not.toContain('Hob Tarrant')
      if (path.startsWith('/api/')) expect(text).toContain('Ocho does not go by that name')
    }
  for (const host of [`127.0.0.1:${port}`, `localhost:${port}`, 'LOCALHOST'])
    expect((await by(host, `/api/jobs/${number}`)).status, host).toBe(200)
})

test('a body without a length is read no further than its limit', async ({ bench, shop }) => {
  const number = await shop.takeIn('82')
  const cookies = (await bench.context().cookies()).map(c => `${c.name}=${c.value}`).join('; ')
  const { hostname, port, host } = new URL(SERVER())
  const chunk = (bytes: number) => `${bytes.toString(16)}\r\n${'x'.repeat(bytes)}\r\n`
  const { answer, ended } = await new Promise<{ answer: string; ended: boolean }>((resolve, reject) => {
    let answer = ''
    let ended = false
    const socket = connect(Number(port), hostname, () => {
      socket.write(
        `POST /api/jobs/${number}/notes HTTP/1.1\r\nHost: ${host}\r\nCookie: ${cookies}\r\nContent-Type: application/json\r\nTransfer-Encoding: chunked\r\n\r\n`,
      )
      // one byte more than is taken, and no end: who waits for it never answers. No byte is left unread on the way,
      // which would tear the connection down over the answer.
      for (let kb = 0; kb < 256; kb += 64) socket.write(chunk(64 * 1024))
      socket.write(chunk(1))
    })
    socket.on('data', data => (answer += data.toString()))
    socket.on('end', () => (ended = true))
    socket.on('close', () => resolve({ answer, ended }))
    socket.on('error', reject)
    socket.setTimeout(20_000, () => socket.destroy())
  })
  expect(answer).toContain(' 413 ')
  expect(ended).toBe(true)
})
