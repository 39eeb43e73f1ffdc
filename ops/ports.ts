import { randomInt } from 'node:crypto'
import { createServer } from 'node:net'

/**
 * Below those that Linux gives to outgoing connections (from 32,768 on): any program's connection could take one of
 * those between the moment it is chosen here and the moment somebody listens on it.
 */
const OURS = { from: 15_000, to: 30_000 }
const TRIES = 100

/** A port of loopback that nobody uses at this moment. @throws Error where none of a hundred tried is free */
export async function freePort(): Promise<number> {
  for (let tried = 0; tried < TRIES; tried++) {
    const port = randomInt(OURS.from, OURS.to)
    if (await isFree(port)) return port
  }
  throw new Error(`none of ${TRIES} ports between ${OURS.from} and ${OURS.to} is free: end a program that holds them`)
}

export async function isFree(port: number, host = '127.0.0.1'): Promise<boolean> {
  return new Promise(resolve => {
    const server = createServer()
    server.once('error', () => resolve(false))
    server.listen(port, host, () => server.close(() => resolve(true)))
  })
}
