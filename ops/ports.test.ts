import { readFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { expect, test } from 'vitest'
import { freePort, isFree } from './ports'

const GIVEN_OUT = '/proc/sys/net/ipv4/ip_local_port_range'

test('a port chosen is none that the kernel gives to somebody’s connection before it is listened on', async () => {
  const [lowest] = readFileSync(GIVEN_OUT, 'utf8').trim().split(/\s+/).map(Number)
  for (let i = 0; i < 20; i++) expect(await freePort()).toBeLessThan(lowest!)
})

test('one that is listened on, at loopback or everywhere, is not free', async () => {
  for (const host of ['127.0.0.1', '0.0.0.0']) {
    const port = await freePort()
    expect(await isFree(port)).toBe(true)
    const server = createServer()
    await new Promise<void>(resolve => server.listen(port, host, resolve))
    expect(await isFree(port)).toBe(false)
    await new Promise(resolve => server.close(resolve))
  }
})
