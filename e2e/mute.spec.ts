import { spawn } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { get } from 'node:http'
import { freePort } from '../ops/ports'
import { ENTRY } from '../ops/server'
import { expect, test } from './shop'

/* A server whose log nobody reads any more, as when its launcher was killed. */

/** Processor time that a process has used, hundredths of a second. */
const usedBy = (pid: number): number => {
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1]!.split(' ')
  return Number(fields[11]) + Number(fields[12])
}

/** Asks by a name that is none: the server says so in its log. */
const askBadly = (port: number) =>
  new Promise<number>((resolve, reject) =>
    get({ hostname: '127.0.0.1', port, path: '/', headers: { host: 'local host' } }, answer => {
      answer.resume()
      resolve(answer.statusCode ?? 0)
    }).on('error', reject),
  )

test('a server whose log is read no more goes on, and keeps no core busy with saying so', async () => {
  const port = await freePort()
  const server = spawn(process.execPath, [ENTRY], {
    env: {
      ...process.env,
      NODE_ENV: 'production',
      HOST: '127.0.0.1',
      NITRO_HOST: '127.0.0.1',
      PORT: String(port),
      NITRO_PORT: String(port),
      OCHO_DATABASE_URL: process.env.OCHO_E2E_APP,
    },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  try {
    const health = () =>
      fetch(`http://127.0.0.1:${port}/api/health`).then(
        r => r.status,
        () => 0,
      )
    await expect.poll(health).toBe(200)
    server.stdout.destroy()
    server.stderr.destroy()
    for (let i = 0; i < 3; i++) expect([400, 421]).toContain(await askBadly(port))
    // a whole second of what it does when nothing is asked of it
    const [before, at] = [usedBy(server.pid!), Date.now()]
    await expect.poll(() => Date.now() - at).toBeGreaterThan(2_000)
    expect(usedBy(server.pid!) - before).toBeLessThan(100)
    expect(await health()).toBe(200)
  } finally {
    server.kill('SIGKILL')
  }
})
