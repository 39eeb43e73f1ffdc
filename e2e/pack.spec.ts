import { execFileSync, spawn } from 'node:child_process'
import { chmodSync, mkdirSync, mkdtempSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import { expect, test, type APIRequestContext } from '@playwright/test'
import { pack } from '../ops/pack'
import { freePort } from '../ops/ports'
import type { OchoStatus } from '../ops/status'

/* A release as an owner has it: one archive, unpacked where nothing of the code is, and exchanged for a later one. */

test.describe.configure({ mode: 'serial', timeout: 300_000 })

let house: string
let port: number
const at = (...path: string[]) => join(house, ...path)
const env = () => ({
  // neither a compiler nor a registry of packages is within reach: Node.js and the system's own commands are
  PATH: `${dirname(process.execPath)}:/usr/bin:/bin`,
  HOME: at('home'),
  OCHO_DATA: at('data'),
  OCHO_PORT: String(port),
})

type Run = { out(): string; code: Promise<number | null>; stop(): void; kill(): void }
function ocho(...args: string[]): Run {
  const child = spawn(at('ocho', 'ocho'), args, { cwd: at('home'), env: env(), detached: true })
  let text = ''
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (d: Buffer) => (text += d.toString()))
  return {
    out: () => text,
    code: new Promise(resolve => child.once('close', resolve)),
    stop: () => process.kill(-child.pid!, 'SIGINT'),
    kill: () => void (child.exitCode === null && process.kill(-child.pid!, 'SIGKILL')),
  }
}
async function started(): Promise<Run> {
  const run = ocho('start')
  await expect.poll(run.out, { timeout: 90_000 }).toContain('Ctrl-C stops it')
  return run
}
async function done(...args: string[]): Promise<{ code: number | null; out: string }> {
  const run = ocho(...args)
  return { code: await run.code, out: run.out() }
}
const status = async (): Promise<{ code: number | null; is: OchoStatus }> => {
  const { code, out } = await done('status', '--json')
  return { code, is: JSON.parse(out.slice(out.indexOf('{'))) as OchoStatus }
}
/** The archive again, with something about it changed. */
function changed(name: string, change: (folder: string) => void): string {
  const folder = mkdtempSync(at('change-'))
  execFileSync('tar', ['-xzf', at('one.tar.gz'), '-C', folder])
  change(join(folder, execFileSync('ls', [folder], { encoding: 'utf8' }).trim()))
  execFileSync('tar', [
    '-I',
    'gzip -1',
    '-cf',
    at(name),
    '-C',
    folder,
    ...execFileSync('ls', [folder], { encoding: 'utf8' }).trim().split('\n'),
  ])
  rmSync(folder, { recursive: true })
  return at(name)
}
const versioned = (folder: string, version: string) =>
  writeFileSync(join(folder, 'version.json'), JSON.stringify({ version, commit: 'test', packedAt: null }))

/** A version that migrates once more than the first. */
function laterStill(folder: string, version: string): void {
  versioned(folder, version)
  const launcher = join(folder, 'ops', 'main.mjs')
  writeFileSync(launcher, withMigration(readFileSync(launcher, 'utf8'), '9998_between'))
}

/** A launcher with one migration more. */
function withMigration(launcher: string, name: string): string {
  const more = launcher.replace('"0013_many": many', `"0013_many": many, "${name}": { async up() {} }`)
  expect(more).not.toBe(launcher)
  return more
}

test.beforeAll(async () => {
  house = mkdtempSync(join(tmpdir(), 'ocho-pack-test-'))
  chmodSync(house, 0o711)
  mkdirSync(at('home'))
  port = await freePort()
  await pack(at('one.tar.gz'), { version: '1.0.0' })
  mkdirSync(at('unpacked'))
  execFileSync('tar', ['-xzf', at('one.tar.gz'), '-C', at('unpacked')])
  renameSync(at('unpacked', execFileSync('ls', [at('unpacked')], { encoding: 'utf8' }).trim()), at('ocho'))
})
test.afterAll(() => rmSync(house, { recursive: true, force: true }))

async function firstRun(request: APIRequestContext, run: Run) {
  const code = /type the code (\S+)/.exec(run.out())![1]
  const answer = await request.post(`http://127.0.0.1:${port}/api/first-run`, {
    data: {
      code,
      shopName: 'Gable End Cycles',
      shop: 'gable',
      zone: 'Europe/Dublin',
      name: 'Orla',
      password: 'a long enough one',
      pin: '4321',
    },
  })
  expect(answer.status()).toBe(200)
}

test('an archive on a clean folder: started, a shop made, a label drawn, a file taken out; its status says so', async ({
  request,
}) => {
  const before = await status()
  expect(before.code).toBe(3)
  expect(before.is).toMatchObject({ version: '1.0.0', running: null, database: false })
  const run = await started()
  await firstRun(request, run)
  const url = `http://127.0.0.1:${port}`
  const job = await request.post(`${url}/api/jobs`, {
    data: {
      customer: { name: 'Hob Tarrant', contact: '085 555 0100' },
      bike: { name: 'Marram quay', frameNumber: 'F-1' },
      tag: '5',
      promisedAt: new Date(Date.now() + 86_400_000).toISOString(),
      complaint: 'slow',
      parts: null,
      sameParts: false,
    },
  })
  expect([job.status(), await job.text()][0], await job.text()).toBe(200)
  const { number } = (await job.json()) as { number: number }
  // heavy work in a thread of its own, with the letters it needs
  const label = await request.get(`${url}/api/jobs/${number}/tag.pdf`)
  expect(label.status(), label.url()).toBe(200)
  expect((await label.body()).subarray(0, 4).toString()).toBe('%PDF')
  const picture = await request.post(`${url}/api/jobs/${number}/photos?of=bike`, {
    headers: { 'content-type': 'image/png' },
    data: readFileSync(join('docs', 'screenshots', 'floor.png')),
  })
  expect(picture.status(), await picture.text()).toBe(200)
  const now = await status()
  expect(now.code).toBe(0)
  expect(now.is).toMatchObject({
    running: { url, version: '1.0.0' },
    devices: { signedIn: 1, seen: 1 },
    service: null,
    database: true,
  })
  const words = await done('status')
  expect(words.out).toContain('Ocho 1.0.0 runs since')
  expect(words.out).toContain('1 signed in, 1 seen within the hour')
  // one that runs in a terminal is not pulled away from under it
  const busy = await done('upgrade', at('one.tar.gz'))
  expect(busy.code).toBe(1)
  expect(busy.out).toContain('runs in a terminal: stop it there')
  run.stop()
  expect(await run.code).toBe(0)
})

test('what is no archive, an older one, a torn one: refused before anything is touched', async () => {
  writeFileSync(at('garbage.tar.gz'), 'nothing of the kind')
  const older = changed('older.tar.gz', f => versioned(f, '0.9.9'))
  const torn = changed('torn.tar.gz', f => rmSync(join(f, 'ops'), { recursive: true }))
  const evil = changed('evil.tar.gz', f => mkdirSync(join(dirname(f), 'beside')))
  for (const [file, words] of [
    [at('garbage.tar.gz'), 'cannot be unpacked'],
    [older, 'an older one cannot read newer data'],
    [torn, 'ops/main.mjs is missing'],
    [evil, 'no archive of Ocho'],
  ] as const) {
    const { code, out } = await done('upgrade', file)
    expect(code, file).toBe(1)
    expect(out, file).toContain(words)
  }
  expect((await status()).is.version).toBe('1.0.0')
  expect(execFileSync('ls', ['-a', house], { encoding: 'utf8' })).not.toContain('.ocho-next')
})

test('a later version that does not start: code and data are back, what it had migrated too', async ({ request }) => {
  const broken = changed('broken.tar.gz', folder => {
    versioned(folder, '1.1.0')
    const launcher = join(folder, 'ops', 'main.mjs')
    const text = readFileSync(launcher, 'utf8')
    // a migration of its own, which runs before its server fails
    writeFileSync(launcher, withMigration(text, '9999_later'))
    writeFileSync(join(folder, '.output', 'server', 'index.mjs'), 'process.exit(7)')
  })
  const { code, out } = await done('upgrade', broken)
  expect(code).toBe(1)
  expect(out).toContain('1.1.0 does not start')
  expect(out).toContain('1.0.0 is in use as before. The data is as it was in the backup')
  const run = await started()
  const signed = await request.post(`http://127.0.0.1:${port}/api/sign-in`, {
    data: { shop: 'gable', name: 'Orla', password: 'a long enough one' },
  })
  expect(signed.status()).toBe(200)
  expect((await status()).is.running!.version).toBe('1.0.0')
  run.stop()
  await run.code
})

test('an upgrade killed at any moment: the old or the new is there whole, starts, and lets the shop in', async ({
  request,
}) => {
  const later = changed('later.tar.gz', folder => laterStill(folder, '1.1.5'))
  for (const afterMs of [0, 900, 1_800]) {
    const run = ocho('upgrade', later)
    await expect.poll(run.out, { timeout: 60_000, intervals: [20] }).toContain('trying 1.1.5')
    await sleep(afterMs)
    run.kill()
    await run.code
    const { is } = await status()
    expect(['1.0.0', '1.1.5']).toContain(is.version)
    // the version that was being tried ends by itself, and lets go of the data
    let up: Run | null = null
    await expect
      .poll(
        async () => {
          const start = ocho('start')
          const ended = start.code.then(() => true)
          while (!start.out().includes('Ctrl-C stops it'))
            if (await Promise.race([ended, sleep(100)])) return start.out()
          up = start
          return 'up'
        },
        { timeout: 60_000 },
      )
      .toBe('up')
    const signed = await request.post(`http://127.0.0.1:${port}/api/sign-in`, {
      data: { shop: 'gable', name: 'Orla', password: 'a long enough one' },
    })
    expect(signed.status()).toBe(200)
    up!.stop()
    await up!.code
    expect(execFileSync('ls', ['-a', house], { encoding: 'utf8' })).not.toContain('.ocho-next')
    if (is.version === '1.1.5') break
  }
})

test('a later version that starts takes its place, with a backup made first, and what was before kept', async ({
  request,
}) => {
  // on a quick machine the last one was killed when it had taken its place already
  const was = (await status()).is.version
  const { code, out } = await done(
    'upgrade',
    changed('two.tar.gz', f => laterStill(f, '1.2.0')),
  )
  expect(out).toContain('a backup before the upgrade')
  expect(out).toContain(`${was} became 1.2.0`)
  expect(code).toBe(0)
  const run = await started()
  const signed = await request.post(`http://127.0.0.1:${port}/api/sign-in`, {
    data: { shop: 'gable', name: 'Orla', password: 'a long enough one' },
  })
  expect(signed.status()).toBe(200)
  expect((await status()).is.running!.version).toBe('1.2.0')
  run.stop()
  await run.code
  expect(readFileSync(at('ocho.before', 'version.json'), 'utf8')).toContain(was)
  const needs = await done('test')
  expect(needs.out).toContain('needs the code itself')
})
