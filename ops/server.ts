import { spawn } from 'node:child_process'
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { freePort, isFree, until } from './cluster'

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

/** Starts the built server on loopback and waits until it answers. `port` 0 takes a free one. */
export async function startServer(options: {
  appUrl: string
  port: number
  firstRunCode?: string
  host?: string
  env?: Record<string, string>
}): Promise<RunningServer> {
  if (!existsSync(ENTRY)) throw new Error('Ocho is not built: run npm run build')
  const port = options.port && (await isFree(options.port)) ? options.port : await freePort()
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
  const ended = new Promise<number | null>(resolve => child.once('exit', code => resolve(code)))
  let gone = false
  void ended.then(() => {
    gone = true
  })
  const url = `http://127.0.0.1:${port}`
  await until(
    async () => {
      if (gone) throw new Error('The server ended while starting: see the message above')
      return fetch(`${url}/api/health`).then(
        r => r.ok,
        () => false,
      )
    },
    30_000,
    'The server did not answer within 30 s',
  )
  const end = async (signal: NodeJS.Signals) => {
    if (!gone) process.kill(child.pid!, signal)
    await ended
  }
  return { url, port, pid: child.pid!, ended, stop: () => end('SIGTERM'), kill: () => end('SIGKILL') }
}
