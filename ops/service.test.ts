import { spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, expect, test } from 'vitest'
import { installService, serviceRuns, serviceState, uninstallService, unitText, type ServiceMachine } from './service'

/*
 * As far as it goes without a machine that systemd started: its own judge of units is real, its control is told to by
 * name.
 */

let units: string
beforeEach(() => {
  units = mkdtempSync(join(tmpdir(), 'ocho-units-'))
})
afterEach(() => rmSync(units, { recursive: true, force: true }))

const real = (program: string, args: readonly string[]) => {
  const { status, stdout, stderr } = spawnSync(program, args, { encoding: 'utf8' })
  return { ok: status === 0, out: `${stdout}${stderr}`.trim() }
}
function machine(booted: boolean, answers: Record<string, { ok: boolean; out: string }> = {}) {
  const asked: string[] = []
  const on: ServiceMachine = {
    units,
    booted,
    run(program, args) {
      if (program === 'systemd-analyze') return real(program, args)
      const line = [program, ...args].join(' ')
      asked.push(line)
      return Object.entries(answers).find(([said]) => line.includes(said))?.[1] ?? { ok: true, out: '' }
    },
  }
  return { on, asked }
}

test('the unit passes systemd’s own judge, for the machine and for a user, whatever its settings hold', () => {
  for (const whose of ['system', 'user'] as const) {
    const { on } = machine(false)
    installService(whose, ['--lan'], on)
    const text = readFileSync(join(units, 'ocho.service'), 'utf8')
    expect(text).toMatch(/ExecStart="\/.*\/ocho" "start" "--lan"/)
    expect(text).toContain('Restart=on-failure')
    const verified = real('systemd-analyze', [
      'verify',
      ...(whose === 'user' ? ['--user'] : []),
      join(units, 'ocho.service'),
    ])
    expect(verified.out.split('\n').filter(l => l.includes('ocho.service'))).toEqual([])
  }
  const odd = unitText('system', [], { OCHO_DATA: '/srv/o c"h%o\\$x', OCHO_PORT: '80', HOME: '/root' })
  expect(odd).toContain('Environment="OCHO_DATA=/srv/o c\\"h%%o\\\\$$x"')
  expect(odd).toContain('Environment="OCHO_PORT=80"')
  expect(odd).not.toContain('HOME')
})

test('where systemd runs it is enabled and started, and again when installed anew; uninstalled, the data stays', () => {
  const { on, asked } = machine(true)
  const first = installService('system', [], on)
  expect(first[0]).toMatch(/^written: /)
  expect(asked).toEqual([
    'systemctl --version',
    'systemctl daemon-reload',
    'systemctl enable ocho.service',
    'systemctl restart ocho.service',
  ])
  expect(installService('system', [], on)[0]).toMatch(/^written anew: /)
  const told = uninstallService('system', '/var/lib/ocho/shop', on)
  expect(told.join()).toContain('The shop’s data stays in /var/lib/ocho/shop'.replace('’', "'"))
  expect(asked).toContain('systemctl disable --now ocho.service')
  expect(existsSync(join(units, 'ocho.service'))).toBe(false)
  expect(() => uninstallService('system', 'x', on)).toThrow(/no service is installed/)
})

test('without systemd it says what to do, and writes nothing; one that refuses is said with its words', () => {
  const none = machine(false, { '--version': { ok: false, out: 'not found' } })
  expect(() => installService('system', [], none.on)).toThrow(/no systemd: have .*start.*crontab/)
  expect(existsSync(join(units, 'ocho.service'))).toBe(false)
  const refuses = machine(true, { enable: { ok: false, out: 'Failed to enable unit: Access denied' } })
  expect(() => installService('system', [], refuses.on)).toThrow(/Access denied/)
})

test('its state is told as systemd tells it', () => {
  const { on } = machine(true, { 'is-enabled': { ok: true, out: 'enabled' }, 'is-active': { ok: true, out: 'active' } })
  expect(serviceState('system', on)).toBeNull()
  installService('system', [], on)
  expect(serviceState('system', on)).toBe('enabled, active')
  expect(serviceRuns('system', on)).toBe(true)
  expect(serviceState('system', { ...on, booted: false })).toContain('does not run here')
  expect(serviceRuns('system', { ...on, booted: false })).toBe(false)
})
