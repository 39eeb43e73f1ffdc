import { execFileSync, spawn, spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, mkdtempSync, openSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import { fileURLToPath } from 'node:url'
import { pack } from '../ops/pack'

/*
 * `npm run booted`, as root: Ocho as a service of a machine that systemd booted. The machine is namespaces of their own
 * (files over this machine's, processes, network, control groups): what it does is not seen outside, and nothing there
 * is touched. Installed out of an archive, killed, booted again, upgraded, uninstalled; each line is what was seen.
 */

const WAIT_MS = 120_000
const home = mkdtempSync(join(tmpdir(), 'ocho-booted-'))
const log = join(home, 'console.log')
const seen: { what: string; seen: string; held: boolean }[] = []
const note = (what: string, held: boolean, words: string) => {
  seen.push({ what, seen: words, held })
  console.log(`${held ? 'holds' : 'FAILS'}  ${what}: ${words}`)
}

type Machine = { pid: number; ended: Promise<void> }

async function boot(): Promise<Machine> {
  const out = openSync(log, 'a')
  const kinds = ['--mount', '--pid', '--net', '--uts', '--ipc', '--cgroup', '--fork', '--kill-child']
  const script = fileURLToPath(new URL('booted.sh', import.meta.url))
  const child = spawn('unshare', [...kinds, 'bash', script, home], { stdio: ['ignore', out, out] })
  const ended = new Promise<void>(resolve => child.once('close', () => resolve()))
  const first = () => {
    const children = `/proc/${child.pid}/task/${child.pid}/children`
    const pid = existsSync(children) ? Number(readFileSync(children, 'utf8').split(' ')[0]) : 0
    return pid && readFileSync(`/proc/${pid}/comm`, 'utf8').trim() === 'systemd' ? pid : null
  }
  const pid = await until('systemd is the first process', async () => first())
  const machine = { pid, ended }
  await until(
    'it is up',
    async () => /running|degraded/.test(inside(machine, 'systemctl', 'is-system-running').out) || null,
  )
  return machine
}

function inside(machine: Machine, ...command: string[]): { code: number | null; out: string } {
  const path = `PATH=${dirname(process.execPath)}:/usr/sbin:/usr/bin:/sbin:/bin`
  const { status, stdout, stderr } = spawnSync(
    'nsenter',
    ['-t', String(machine.pid), '-m', '-p', '-n', '-u', '-i', '-C', 'env', '-i', path, 'HOME=/root', ...command],
    { encoding: 'utf8', cwd: '/' },
  )
  return { code: status, out: `${stdout}${stderr}`.trim() }
}

/** Asks again until there is an answer. @throws Error when there was none in time */
async function until<T>(what: string, ask: () => Promise<T | null>): Promise<T> {
  const by = Date.now() + WAIT_MS
  for (;;) {
    const found = await ask()
    if (found !== null) return found
    if (Date.now() > by) throw new Error(`${what}: not within ${WAIT_MS / 1000} s`)
    await sleep(200)
  }
}
const seconds = (since: number) => `${((Date.now() - since) / 1000).toFixed(1)} s`
const healthy = (machine: Machine) => () =>
  Promise.resolve(inside(machine, 'curl', '-sf', 'http://127.0.0.1:8188/api/health').code === 0 || null)
const down = async (machine: Machine): Promise<void> => {
  // systemd's own word for halt (systemd(1), signals); Node.js knows no such signal
  spawnSync('kill', ['-s', 'RTMIN+3', String(machine.pid)])
  await machine.ended
}

async function main(): Promise<void> {
  if (process.getuid?.() !== 0) throw new Error('a machine is booted by root alone')
  spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=6g', 'tmpfs', home])
  const opt = join(home, 'upper', 'opt')
  mkdirSync(opt, { recursive: true })
  await pack(join(opt, 'one.tar.gz'), { version: '1.0.0' })
  await pack(join(opt, 'two.tar.gz'), { version: '1.1.0' })
  execFileSync('tar', ['-xzf', join(opt, 'one.tar.gz'), '-C', opt])
  execFileSync('mv', [
    join(
      opt,
      execFileSync('ls', [opt], { encoding: 'utf8' })
        .split('\n')
        .find(f => f.startsWith('ocho-'))!,
    ),
    join(opt, 'ocho'),
  ])
  let machine = await boot()
  try {
    note('a machine that systemd booted', true, inside(machine, 'systemctl', 'is-system-running').out)
    let began = Date.now()
    const ocho = (...args: string[]) => inside(machine, '/opt/ocho/ocho', ...args)
    const installed = ocho('service', 'install')
    note('service install', installed.code === 0, installed.out.split('\n').at(-1)!)
    await until('it answers', healthy(machine))
    note('answers after the install', true, seconds(began))
    const journal = inside(machine, 'journalctl', '-u', 'ocho', '--no-pager', '-o', 'cat').out
    note(
      'its log is the system’s, with the code of the first run',
      /type the code \S+/.test(journal),
      `${journal.split('\n').length} lines`,
    )
    const post = (path: string, body: object) =>
      inside(
        machine,
        ...['curl', '-sf', '-H', 'content-type: application/json', '-d', JSON.stringify(body)],
        `http://127.0.0.1:8188/api/${path}`,
      ).code
    const owner = { shop: 'gable', name: 'Orla', password: 'a long enough one' }
    const made = post('first-run', {
      ...owner,
      code: /type the code (\S+)/.exec(journal)![1],
      shopName: 'Gable End Cycles',
      zone: 'Europe/Dublin',
      pin: '4321',
    })
    note('a shop is made', made === 0, `curl ended with ${made}`)
    const entry = () => post('sign-in', owner) === 0
    const status = ocho('status')
    note(
      'status',
      status.code === 0 && /service\s+enabled, active/.test(status.out),
      status.out
        .split('\n')
        .find(l => l.includes('service'))
        ?.trim() ?? status.out,
    )

    const mainPid = () => inside(machine, 'systemctl', 'show', '-P', 'MainPID', 'ocho').out
    const first = mainPid()
    inside(machine, 'kill', '-9', first)
    began = Date.now()
    await until('it is back after a kill', async () => (mainPid() !== first && mainPid() !== '0' ? true : null))
    await until('it answers after a kill', healthy(machine))
    note('killed: back by itself, the shop lets in', entry(), seconds(began))

    await down(machine)
    machine = await boot()
    began = Date.now()
    await until('it answers after a boot', healthy(machine))
    note('booted again: started by itself, the shop lets in', entry(), `${seconds(began)} after systemd was up`)

    began = Date.now()
    const upgraded = ocho('upgrade', '/opt/two.tar.gz')
    await until('it answers after an upgrade', healthy(machine))
    note(
      'upgrade: the service stopped, the new version tried, started',
      upgraded.code === 0 && entry(),
      `${upgraded.out
        .split('\n')
        .find(l => l.includes('became'))
        ?.trim()}; ${seconds(began)}`,
    )
    note(
      'the new version runs',
      ocho('status').out.includes('Ocho 1.1.0 runs since'),
      ocho('status').out.split('\n')[0]!.trim(),
    )

    const gone = ocho('service', 'uninstall')
    const left = inside(machine, 'pgrep', '-c', '-f', 'ocho/ops/main.mjs|index.mjs').out
    note(
      'uninstalled: nothing of it runs, the data stays',
      gone.code === 0 && left === '0' && inside(machine, 'ls', '/var/lib/ocho/shop').code === 0,
      gone.out.split('\n').at(-1)!,
    )
  } finally {
    await down(machine)
  }
}

try {
  await main()
} catch (error) {
  note('to the end', false, (error as Error).message)
} finally {
  if (seen.some(s => !s.held)) writeFileSync(join(tmpdir(), 'ocho-booted.log'), readFileSync(log))
  spawnSync('umount', ['-l', home])
  rmSync(home, { recursive: true, force: true })
}
process.exitCode = seen.every(s => s.held) ? 0 : 1
