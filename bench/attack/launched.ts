import { spawn, type ChildProcess } from 'node:child_process'
import { chmodSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import { addressesOf, type Addresses } from '../../ops/cluster'
import { lastPort, readSecrets } from '../../ops/folder'
import { freePort } from '../../ops/ports'
import { ROOT } from '../../ops/server'

export type Launched = { child: ChildProcess; out(): string; code: Promise<number | null> }

/** Ocho's own command on a data folder of the attack's. */
export async function launcherIn() {
  const data = mkdtempSync(join(tmpdir(), 'ocho-attack-'))
  chmodSync(data, 0o711) // the user postgres passes through
  const port = await freePort()
  const running = new Set<Launched>()
  const launch = (...args: string[]): Launched => {
    const child = spawn(join(ROOT, 'node_modules', '.bin', 'tsx'), ['ops/main.ts', ...args], {
      cwd: ROOT,
      env: { ...process.env, OCHO_DATA: data, OCHO_PORT: String(port) },
      detached: true,
    })
    let text = ''
    for (const stream of [child.stdout!, child.stderr!])
      stream.on('data', (chunk: Buffer) => {
        text = (text + chunk.toString()).slice(-20_000)
      })
    const launched = { child, out: () => text, code: new Promise<number | null>(end => child.once('exit', end)) }
    running.add(launched)
    void launched.code.then(() => running.delete(launched))
    return launched
  }
  const folder = (kind: string) => join(data, kind)
  return {
    data,
    port,
    url: `http://127.0.0.1:${port}`,
    folder,
    launch,
    /** Waits until it is up, or has ended. */
    async up(l: Launched, patienceMs = 60_000): Promise<boolean> {
      const end = Date.now() + patienceMs
      let ended = false
      void l.code.then(() => (ended = true))
      while (!l.out().includes('Ctrl-C stops it')) {
        if (ended || Date.now() > end) return false
        await sleep(50)
      }
      return true
    },
    /** As Ctrl-C does. */
    async stop(l: Launched): Promise<void> {
      process.kill(-l.child.pid!, 'SIGINT')
      await l.code
    },
    /** No chance to put anything in order. */
    async cut(l: Launched): Promise<void> {
      try {
        process.kill(-l.child.pid!, 'SIGKILL')
      } catch {
        // it had ended by itself
      }
      await l.code
    },
    pids(kind: string): { server: number; database: number } {
      const first = (file: string) => {
        try {
          return Number(readFileSync(join(folder(kind), file), 'utf8').split('\n')[0])
        } catch {
          return 0
        }
      }
      return { server: first('server.pid'), database: first(join('cluster', 'postmaster.pid')) }
    },
    addresses(kind: string): Addresses {
      return addressesOf(lastPort(folder(kind))!, readSecrets(folder(kind))!)
    },
    async remove(): Promise<void> {
      for (const l of running) await this.cut(l)
      for (const kind of ['shop', 'demo']) {
        const { server, database } = this.pids(kind)
        for (const pid of [server, database]) if (pid) kill(pid)
      }
      await sleep(500)
      rmSync(data, { recursive: true, force: true })
    },
  }
}
export type Launcher = Awaited<ReturnType<typeof launcherIn>>

/** Ends a process of the attack's own, if it is still there. */
export function kill(pid: number): boolean {
  try {
    process.kill(pid, 'SIGKILL')
    return true
  } catch {
    return false
  }
}
