import { spawn } from 'node:child_process'
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { get as getSecurely } from 'node:https'
import { until } from './cluster'
import { freePort, isFree } from './ports'

export type RunningServer = {
  url: string
  port: number
  pid: number
  stop(): Promise<void>
  kill(): Promise<void>
  ended: Promise<number | null>
}

export const ROOT = join(import.meta.dirname, '..')
export const ENTRY = join(ROOT, '.output', 'server', 'index.mjs')

/**
 * Starts the built server on loopback and waits until it answers. `port` 0 takes a free one; one that is taken is an
 * error.
 */
export async function startServer(options: {
  appUrl: string
  port: number
  firstRunCode?: string
  host?: string
  /** Speaks HTTPS with the certificate in its environment: the authority that its health is asked under. */
  tls?: string
  env?: Record<string, string>
  /** Told its process before it answers, so that a kill in between leaves nothing nobody knows of. */
  started?(pid: number): void
}): Promise<RunningServer> {
  if (!existsSync(ENTRY)) throw new Error('Ocho is not built: run npm run build')
  if (options.port && !(await isFree(options.port, options.host)))
    throw new Error(
      `port ${options.port} is taken by another program: end that one, or name another port with OCHO_PORT`,
    )
  const port = options.port || (await freePort())
  const host = options.host ?? '127.0.0.1'
  const child = spawn(process.execPath, [ENTRY], {
    env: {
      ...process.env,
      NODE_ENV: 'production',
      HOST: host,
      NITRO_HOST: host,
      PORT: String(port),
      NITRO_PORT: String(port),
      NITRO_SHUTDOWN_TIMEOUT: '1000',
      OCHO_DATABASE_URL: options.appUrl,
      OCHO_FIRST_RUN_CODE: options.firstRunCode ?? '',
      ...options.env,
    },
    stdio: ['ignore', 'ignore', 'inherit'],
    detached: true, // Ctrl-C reaches the launcher alone, which stops things in order
  })
  options.started?.(child.pid!)
  const ended = new Promise<number | null>(resolve => child.once('exit', code => resolve(code)))
  let gone = false
  void ended.then(() => {
    gone = true
  })
  const url = `${options.tls ? 'https' : 'http'}://127.0.0.1:${port}`
  const end = async (signal: NodeJS.Signals) => {
    if (!gone) process.kill(child.pid!, signal)
    await ended
  }
  try {
    await until(
      async () => {
        if (gone) throw new Error('The server ended while starting: see the message above')
        return isHealthy(url, options.tls)
      },
      30_000,
      'The server did not answer within 30 s',
    )
  } catch (error) {
    await end('SIGKILL')
    throw error
  }
  return { url, port, pid: child.pid!, ended, stop: () => end('SIGTERM'), kill: () => end('SIGKILL') }
}

/** Does a server say that it would keep a tap now? Over HTTPS only under the authority given. */
export function isHealthy(url: string, authority?: string): Promise<boolean> {
  if (authority === undefined)
    return fetch(`${url}/api/health`).then(
      r => r.ok,
      () => false,
    )
  return new Promise(resolve => {
    getSecurely(`${url}/api/health`, { ca: authority, timeout: 5_000 }, response => {
      response.resume()
      resolve(response.statusCode === 200)
    }).on('error', () => resolve(false))
  })
}
