import { request } from 'node:http'
import { Socket } from 'node:net'
import { setTimeout as sleep } from 'node:timers/promises'
import { found, memoryMb, signIn, type Rig } from './rig'

/** Bodies that never end, and senders that never finish. */
export async function bodies({ url, shop, server }: Rig, patient = true): Promise<void> {
  const owner = await signIn(url, shop.code, 'Ishbel')
  const number = await shop.take('big-1')
  const { hostname, port } = new URL(url)
  const before = await memoryMb(server.pid)
  let most = before
  const watching = setInterval(() => void memoryMb(server.pid).then(m => (most = Math.max(most, m))), 50)
  const chunk = Buffer.alloc(1024 * 1024, 'x')
  const endless = (path: string, type: string) =>
    new Promise<number>(resolve => {
      let sent = 0
      const asked = request(
        {
          hostname,
          port,
          path,
          method: 'POST',
          headers: { cookie: owner.cookie, 'content-type': type, 'transfer-encoding': 'chunked' },
        },
        answer => {
          answer.resume()
          resolve(answer.statusCode ?? 0)
        },
      )
      asked.on('error', () => resolve(0))
      const more = () => {
        if (sent++ > 600) return asked.end()
        if (asked.write(chunk)) setImmediate(more)
        else asked.once('drain', more)
      }
      more()
    })
  const statuses = await Promise.all([
    endless(`/api/jobs/${number}/events`, 'application/json'),
    endless('/api/standards/import?take=look&kind=csv', 'text/csv'),
    endless(`/api/jobs/${number}/photos?of=bike`, 'image/jpeg'),
    endless('/api/sign-in', 'application/json'),
  ])
  clearInterval(watching)
  found({
    what: 'bodies of 600 MB without a length, four at once',
    tries: 4,
    bad: statuses.filter(s => s !== 413 && s !== 0 && s !== 401).length + (most - before > 150 ? 1 : 0),
    told: `answers ${statuses.join(', ')}; memory ${before.toFixed(0)} to at most ${most.toFixed(0)} MB`,
  })

  // headers and bodies that trickle in hold nobody else up, and are ended
  let ended = 0
  const began = performance.now()
  const sockets = Array.from({ length: 60 }, (_, i) => {
    const socket = new Socket()
    socket
      .on('error', () => undefined)
      .on('close', () => ended++)
      .resume()
    socket.connect(Number(port), hostname, () => {
      socket.write(
        i % 2
          ? 'POST /api/sign-in HTTP/1.1\r\nhost: a\r\ncontent-length: 1000\r\ncontent-type: application/json\r\n\r\n{'
          : 'GET / HTTP/1.1\r\nhost: a\r\nx-slow: ',
      )
    })
    return socket
  })
  await sleep(500)
  const start = performance.now()
  const answer = await owner.send('GET', '/api/session')
  const tookMs = performance.now() - start
  found({
    what: 'a request while sixty others trickle in',
    tries: 60,
    bad: answer.ok && tookMs < 500 ? 0 : 1,
    told: `answered in ${tookMs.toFixed(0)} ms`,
  })
  // a minute for a body, and half a minute until Node looks again
  while (patient && ended < sockets.length && performance.now() - began < 120_000) await sleep(500)
  if (patient)
    found({
      what: 'those sixty, who never finish',
      tries: 60,
      bad: sockets.length - ended,
      told: `all ended by the server after ${((performance.now() - began) / 1000).toFixed(0)} s`,
    })
  for (const s of sockets) s.destroy()
}
