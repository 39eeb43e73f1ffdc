import { spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { homedir, tmpdir, userInfo } from 'node:os'
import { dirname, join } from 'node:path'
import { ClusterTrouble } from './postgres'
import { ROOT } from './server'

const UNIT = 'ocho.service'
/** Settings of Ocho's that a service keeps as they are when it is installed. */
const SETTINGS = [
  'OCHO_DATA',
  'OCHO_PORT',
  'OCHO_LAN_PORT',
  'OCHO_JOIN_PORT',
  'OCHO_NAMES',
  'OCHO_BACKUP_FOLDER',
  'OCHO_BACKUP_PASSPHRASE_FILE',
]

/** What of the machine a service meets; given in tests. */
export type ServiceMachine = {
  /** Folder that units of this kind stand in. */
  units: string
  /** Is systemd what this machine was started with, so that it listens now? */
  booted: boolean
  run(program: string, args: readonly string[]): { ok: boolean; out: string }
}

const runHere: ServiceMachine['run'] = (program, args) => {
  const { status, stdout, stderr, error } = spawnSync(program, args, { encoding: 'utf8' })
  return { ok: status === 0, out: error ? error.message : `${stdout}${stderr}`.trim() }
}

/** As root for the whole machine, else for this user. */
export type Whose = 'system' | 'user'
export const serviceMachine = (whose: Whose): ServiceMachine => ({
  units: whose === 'system' ? '/etc/systemd/system' : join(homedir(), '.config', 'systemd', 'user'),
  booted: existsSync('/run/systemd/system'),
  run: runHere,
})

/** One value in a unit's file: quoted, with what systemd would read otherwise kept as it is (systemd.syntax). */
const quoted = (value: string): string =>
  `"${value.replace(/[\\"]/g, '\\$&').replaceAll('%', '%%').replaceAll('$', '$$$$')}"`

/** The unit's file: started at boot, started again if the launcher ends, with nothing of the system open to writing. */
export function unitText(whose: Whose, args: readonly string[], env: NodeJS.ProcessEnv = process.env): string {
  const kept = SETTINGS.filter(name => env[name]).map(name => `Environment=${quoted(`${name}=${env[name]}`)}`)
  const lines = [
    '[Unit]',
    'Description=Ocho, the bench companion of this shop',
    ...(whose === 'system' ? ['Wants=network-online.target', 'After=network-online.target'] : []),
    '',
    '[Service]',
    'Type=exec',
    `WorkingDirectory=${ROOT.replaceAll('%', '%%')}`,
    `ExecStart=${[join(ROOT, 'ocho'), 'start', ...args].map(quoted).join(' ')}`,
    `Environment=${quoted(`PATH=${dirname(process.execPath)}:/usr/local/bin:/usr/bin:/bin`)}`,
    ...kept,
    'Restart=on-failure',
    'RestartSec=10',
    // the launcher alone is asked to stop: it stops server and database in order
    'KillMode=mixed',
    'TimeoutStopSec=60',
    'NoNewPrivileges=yes',
    ...(whose === 'system' ? ['PrivateTmp=yes', 'ProtectSystem=full'] : []),
    '',
    '[Install]',
    `WantedBy=${whose === 'system' ? 'multi-user.target' : 'default.target'}`,
    '',
  ]
  return lines.join('\n')
}

const control = (whose: Whose, ...args: string[]): [string, string[]] => [
  'systemctl',
  whose === 'user' ? ['--user', ...args] : args,
]

/**
 * Writes the unit, checked first by systemd's own judge, and has it start at boot and now.
 * @returns what was done, a line each
 * @throws ClusterTrouble with what to do instead where there is no systemd
 */
export function installService(whose: Whose, args: readonly string[], on = serviceMachine(whose)): string[] {
  if (!on.run('systemctl', ['--version']).ok)
    throw new ClusterTrouble(
      `this machine has no systemd: have “${join(ROOT, 'ocho')} start” run at boot by what it has, such as a line “@reboot ${join(ROOT, 'ocho')} start” in the crontab of ${userInfo().username}`,
    )
  const text = unitText(whose, args)
  const aside = mkdtempSync(join(tmpdir(), 'ocho-unit-'))
  try {
    writeFileSync(join(aside, UNIT), text)
    const judged = on.run('systemd-analyze', ['verify', ...(whose === 'user' ? ['--user'] : []), join(aside, UNIT)])
    const ours = judged.out.split('\n').filter(l => l.includes(UNIT))
    if (!judged.ok && ours.length) throw new ClusterTrouble(`systemd does not take the unit: ${ours[0]}`)
  } finally {
    rmSync(aside, { recursive: true, force: true })
  }
  const file = join(on.units, UNIT)
  const before = existsSync(file)
  mkdirSync(on.units, { recursive: true })
  writeFileSync(file, text, { mode: 0o644 })
  const said = [`${before ? 'written anew' : 'written'}: ${file}`]
  const must = (...what: string[]) => {
    const { ok, out } = on.run(...control(whose, ...what))
    if (!ok) throw new ClusterTrouble(`systemctl ${what.join(' ')}: ${out.split('\n').at(-1)}`)
  }
  if (!on.booted) {
    if (whose === 'system') must('enable', UNIT)
    said.push('systemd does not run here at the moment: Ocho starts at the next boot that it runs in')
    return said
  }
  must('daemon-reload')
  must('enable', UNIT)
  must('restart', UNIT)
  if (whose === 'user' && !on.run('loginctl', ['enable-linger', userInfo().username]).ok)
    said.push('it starts when you sign in to this machine; to have it start at boot: loginctl enable-linger, as root')
  said.push(`started, and at every boot. Its log: journalctl ${whose === 'user' ? '--user ' : ''}-u ocho`)
  return said
}

/** Stops it and takes the unit away; the data stays. @returns what was done */
export function uninstallService(whose: Whose, data: string, on = serviceMachine(whose)): string[] {
  const file = join(on.units, UNIT)
  if (!existsSync(file)) throw new ClusterTrouble(`no service is installed: there is no ${file}`)
  const off = on.run(...control(whose, 'disable', ...(on.booted ? ['--now'] : []), UNIT))
  rmSync(file)
  if (on.booted) on.run(...control(whose, 'daemon-reload'))
  return [
    ...(off.ok ? [] : [`systemctl: ${off.out.split('\n').at(-1)}`]),
    `taken away: ${file}. The shop's data stays in ${data}`,
  ]
}

/** How the service stands, for a line of the status; null where none is installed. */
export function serviceState(whose: Whose, on = serviceMachine(whose)): string | null {
  if (!existsSync(join(on.units, UNIT))) return null
  if (!on.booted) return 'installed; systemd does not run here at the moment'
  const [enabled, active] = ['is-enabled', 'is-active'].map(q => on.run(...control(whose, q, UNIT)).out.split('\n')[0])
  return `${enabled}, ${active}`
}

/** Stops or starts it where it is installed and systemd runs. @returns whether it was running */
export function serviceRuns(whose: Whose, on = serviceMachine(whose)): boolean {
  return serviceState(whose, on)?.endsWith(', active') ?? false
}
export function turnService(whose: Whose, what: 'stop' | 'start', on = serviceMachine(whose)): void {
  const { ok, out } = on.run(...control(whose, what, UNIT))
  if (!ok) throw new ClusterTrouble(`systemctl ${what} ${UNIT}: ${out.split('\n').at(-1)}`)
}
