import { spawn } from 'node:child_process'
import { existsSync, rmSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import { buildDemo } from '../demo/build'
import type { RunningNow } from '#core/shop/reach'
import { DEMO_ENV, DEMO_PEOPLE, DEMO_SHOP } from '../demo/people'
import { oneTimeCode } from '../server/auth/secrets'
import { connect } from '../server/db/connect'
import { writeWhole } from '../server/beside'
import { HTTPS_PORT, JOIN_PORT, keepWish, runningFile, wishIn } from '../server/reach/status'
import { askFile, firstDay, statusIn } from '../server/nights/status'
import { backUp, backupPassphrase } from './backup'
import { startCluster, until, type Cluster } from './cluster'
import { dataFolder, openIfThere, withDatabase, type Kind } from './data'
import { countShops, openDatabase } from './database'
import { ownProcess, takeFolderForStart } from './folder'
import { backUpNight, isDue } from './nightly'
import { ClusterTrouble } from './postgres'
import { runElsewhere } from './elsewhere'
import { pack } from './pack'
import { keepReach } from './reach'
import { restore } from './restore'
import { say } from './say'
import { ENTRY, ROOT, startServer, type RunningServer } from './server'
import { installService, uninstallService, type Whose } from './service'
import { statusLines, statusOf } from './status'
import { keepRunning } from './supervise'
import { settleUpgrade, sweepUpgrades, upgrade } from './upgrade'
import { versionHere } from './version'
import { verifyLedger } from './verify'

const DEFAULT_PORT = 8188
const DEV_PORT = 8189
/** A port that was asked for, or the usual one. @throws ClusterTrouble */
function portAsked(setting: string, usual: number): number {
  const asked = process.env[setting]
  const port = Number(asked ?? usual)
  if (!Number.isInteger(port) || port < 1 || port > 65_535)
    throw new ClusterTrouble(`${setting} is ${asked}: a port is a number from 1 to 65535`)
  return port
}

async function run(kind: 'demo' | 'shop', args: readonly string[]): Promise<void> {
  knownOnly(args, ['--lan'], 'there is --lan, for tablets in the shop')
  const port = portAsked('OCHO_PORT', DEFAULT_PORT)
  const ports = { https: portAsked('OCHO_LAN_PORT', HTTPS_PORT), join: portAsked('OCHO_JOIN_PORT', JOIN_PORT) }
  if (kind === 'shop' && process.env.OCHO_DATABASE_URL) return runElsewhere(port, say)
  const folder = dataFolder(kind)
  const release = await takeFolderForStart(folder)
  sweepUpgrades()
  for (const file of [serverPidFile(folder), lanPidFile(folder)]) await stopLeftOverServer(file)
  if (args.includes('--lan')) keepWish(folder, { ...wishIn(folder), lan: true })
  const passphrase = backupPassphrase()
  const cluster = await startCluster(folder, say)
  say(`database runs on port ${cluster.port}, data in ${cluster.folder}`)
  let server: RunningServer | undefined
  const lan: { reach?: { stop(): Promise<void> } } = {}
  let stopping = false
  const stop = async (code: number) => {
    if (stopping) return
    stopping = true
    say('stopping')
    await Promise.all([server?.stop(), lan.reach?.stop()])
    await cluster.stop()
    for (const file of [serverPidFile(folder), lanPidFile(folder)]) {
      const left = ownProcess(file, isServer)
      if (left !== null) process.kill(left, 'SIGTERM') // one that was just being started
      rmSync(file, { force: true })
    }
    rmSync(runningFile(folder), { force: true })
    release()
    say('stopped')
    process.exit(code)
  }
  process.on('SIGINT', () => void stop(0))
  process.on('SIGTERM', () => void stop(0))
  const rehearsal = process.env.OCHO_REHEARSAL === '1'
  // the upgrade that tries this version was killed: nobody would ever end it
  if (rehearsal) process.stdin.once('end', () => void stop(0)).resume()
  const env = { OCHO_DATA_FOLDER: folder, ...(kind === 'demo' ? DEMO_ENV : {}) }
  const serve = async () => {
    const firstRunCode = (await countShops(cluster.ownerUrl)) === 0 ? oneTimeCode() : undefined
    server = await startServer({
      appUrl: cluster.appUrl,
      port,
      firstRunCode,
      started: pid => writeWhole(serverPidFile(folder), String(pid)),
      env,
    })
    if (firstRunCode) say(`first run: open it and type the code ${firstRunCode}`)
  }
  try {
    const done = await openDatabase(cluster, {
      ...(kind === 'demo' && { fill: fillDemo }),
      beforeAll: async () => {
        if (!rehearsal) await settleUpgrade(cluster, folder, passphrase, say)
      },
      beforeMigrating: async pending => {
        const file = join(folder, 'backups', `before-${pending.at(-1)}.backup`)
        say(`a backup before the upgrade: ${file}`)
        await backUp(cluster, file, passphrase)
      },
    })
    if (done.length) say(`migrated: ${done.join(', ')}`)
    await serve()
    say(`Ocho is at ${server!.url}`)
    const { version, commit } = versionHere()
    const now: RunningNow = { url: server!.url, version, commit, since: new Date().toISOString() }
    writeWhole(runningFile(folder), JSON.stringify(now))
    if (kind === 'demo')
      say(
        `demo: shop ${DEMO_SHOP.code}, ${DEMO_PEOPLE[0].name}, password ${DEMO_PEOPLE[0].password}, PIN ${DEMO_PEOPLE[0].pin}`,
      )
    say('Ctrl-C stops it')
  } catch (error) {
    if (stopping) return
    await server?.stop()
    await cluster.stop()
    throw error
  }
  const how = { say, stopping: () => stopping, sleep }
  const serverPart = {
    name: 'the server',
    ended: async () => `code ${(await server!.ended) ?? 'none: it was killed'}`,
    again: serve,
  }
  const databasePart = { name: 'the database', ended: () => cluster.ended(), again: () => cluster.again() }
  // a new version that is only tried is tried without anybody
  if (rehearsal) {
    await Promise.race([keepRunning(serverPart, how), keepRunning(databasePart, how)])
    return
  }
  // beside the rest: what takes long to open, or cannot be opened, holds nothing else up
  lan.reach = keepReach({
    folder,
    appUrl: cluster.appUrl,
    env,
    say,
    ended: () => stopping,
    started: pid => writeWhole(lanPidFile(folder), String(pid)),
    ports,
  })
  void nights(kind, cluster, folder, passphrase, () => stopping)
  const gaveUp = await Promise.race([keepRunning(serverPart, how), keepRunning(databasePart, how)])
  if (gaveUp === null) return
  console.error(`ocho: ${gaveUp}. Nothing that was kept is lost: mend that, then start Ocho again`)
  await stop(1)
}

/** Makes the night's backup whenever one is due, or asked for, as long as the launcher runs. */
async function nights(kind: Kind, cluster: Cluster, folder: string, passphrase: string | null, ended: () => boolean) {
  // remembered here too: on a full disk nothing could be written of it, and it would be tried for ever
  let tried = new Date(statusIn(folder).triedAt ?? firstDay(folder))
  while (!ended()) {
    const asked = existsSync(askFile(folder))
    // nobody needs a demo's nights
    if (asked || (kind === 'shop' && isDue(new Date(), tried))) {
      tried = new Date()
      await backUpNight(cluster, folder, { passphrase, second: process.env.OCHO_BACKUP_FOLDER, say })
    }
    if (asked) rmSync(askFile(folder), { force: true })
    await sleep(2_000, undefined, { ref: false })
  }
}

const isServer = (command: readonly string[]): boolean => command.includes(ENTRY)
const serverPidFile = (folder: string): string => join(folder, 'server.pid')
const lanPidFile = (folder: string): string => join(folder, 'server.lan.pid')

/** A launcher that was killed leaves its server behind, holding the port: it is stopped first. */
async function stopLeftOverServer(pidFile: string): Promise<void> {
  const running = () => ownProcess(pidFile, isServer)
  const pid = running()
  if (pid === null) return
  say('stopping a server left over from before')
  process.kill(pid, 'SIGTERM')
  await until(async () => running() === null, 10_000, 'A server left over from before did not stop: end it by hand')
}

/** Database with demo data and a server that reloads as the code changes; Ctrl-C stops both. */
async function dev(): Promise<void> {
  await takeFolderForStart(dataFolder('dev'))
  const cluster = await startCluster(dataFolder('dev'), say)
  try {
    await openDatabase(cluster, { fill: fillDemo })
    say(`Ocho will be at http://127.0.0.1:${DEV_PORT}, and reloads as you type. Ctrl-C stops it`)
    const child = spawn(
      join(ROOT, 'node_modules', '.bin', 'nuxt'),
      ['dev', '--port', String(DEV_PORT), '--host', '127.0.0.1', '--no-clear'],
      { cwd: ROOT, stdio: 'inherit', env: { ...process.env, ...DEMO_ENV, OCHO_DATABASE_URL: cluster.appUrl } },
    )
    const ended = new Promise<void>(resolve => child.once('exit', () => resolve()))
    for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => child.kill('SIGTERM'))
    await ended
  } finally {
    await cluster.stop()
  }
}

async function fillDemo(appUrl: string): Promise<void> {
  const db = connect(appUrl, 4)
  try {
    say('loading the demo shop')
    await buildDemo(db, { say })
  } finally {
    await db.destroy()
  }
}

/** What follows a command: a file, and switches with or without a value. */
function readArguments(args: readonly string[]): { file?: string; demo: boolean; shop?: string } {
  const shopAt = args.indexOf('--shop')
  const rest = args.filter((a, i) => a !== '--demo' && (shopAt < 0 || (i !== shopAt && i !== shopAt + 1)))
  const strange = rest.find(a => a.startsWith('--'))
  if (strange) throw new ClusterTrouble(`${strange} means nothing here: there are --demo and, for restore, --shop CODE`)
  if (shopAt >= 0 && !args[shopAt + 1]) throw new ClusterTrouble('--shop needs the code of a shop')
  return { file: rest[0], demo: args.includes('--demo'), shop: shopAt < 0 ? undefined : args[shopAt + 1] }
}

function fileAsked(file: string | undefined): string {
  if (!file)
    throw new ClusterTrouble("name the file: ./ocho backup FILE or ./ocho restore FILE (--demo for the demo's data)")
  return resolve(file)
}

async function backupCommand(args: string[]): Promise<void> {
  const { file, demo } = readArguments(args)
  const to = fileAsked(file)
  const passphrase = backupPassphrase()
  await withDatabase(demo ? 'demo' : 'shop', async cluster => {
    await openIfThere(cluster)
    const bytes = await backUp(cluster, to, passphrase)
    say(`backup written: ${to}, ${(bytes / 1024).toFixed(0)} kB${passphrase ? ', under the passphrase' : ''}`)
  })
}

async function restoreCommand(args: string[]): Promise<void> {
  const { file, demo, shop } = readArguments(args)
  const from = fileAsked(file)
  if (!existsSync(from)) throw new ClusterTrouble(`there is no file ${from}`)
  const passphrase = backupPassphrase()
  await withDatabase(demo ? 'demo' : 'shop', async cluster => {
    if (shop !== undefined) {
      await openIfThere(cluster)
      const aside = join(dataFolder(demo ? 'demo' : 'shop'), 'backups', `before-restore-${Date.now()}.backup`)
      await backUp(cluster, aside, passphrase)
      say(`what is here now is kept in ${aside}`)
    }
    const held = await restore(cluster, { file: from, passphrase, demo, shop })
    say(
      shop === undefined
        ? `restored from ${from}: ${held.shops} shop(s), ${held.jobs} jobs, ${held.events} entries, the last of ${held.latest ?? 'never'}. Devices signed out since then sign in again`
        : `restored the shop ${shop} from ${from}; other shops were not touched`,
    )
  })
}

async function verifyCommand(args: string[]): Promise<void> {
  const { demo } = readArguments(args)
  await withDatabase(demo ? 'demo' : 'shop', async cluster => {
    await openIfThere(cluster)
    const told = await verifyLedger(cluster.ownerUrl)
    for (const line of told.broken) console.error(line)
    say(
      `${told.entries} entries of ${told.jobs} jobs: ${told.broken.length ? `${told.broken.length} are not as they were written` : 'each follows from the one before'}`,
    )
    if (told.broken.length) process.exitCode = 1
  })
}

/** Refuses what a command does not know. @throws ClusterTrouble */
function knownOnly(args: readonly string[], known: readonly string[], usage: string): void {
  const strange = args.find(a => !known.includes(a))
  if (strange) throw new ClusterTrouble(`${strange} means nothing here: ${usage}`)
}

const whoseService = (args: readonly string[]): Whose =>
  args.includes('--user') ? 'user' : args.includes('--system') || process.getuid?.() === 0 ? 'system' : 'user'

async function statusCommand(args: string[]): Promise<void> {
  knownOnly(args, ['--demo', '--json'], './ocho status [--demo] [--json]')
  const status = await statusOf(dataFolder(args.includes('--demo') ? 'demo' : 'shop'), whoseService([]))
  console.log(args.includes('--json') ? JSON.stringify(status, null, 2) : statusLines(status).join('\n'))
  // 3 says "does not run", as start scripts say it (Linux Standard Base, common practice)
  if (!status.running) process.exitCode = 3
}

async function serviceCommand([what, ...args]: string[]): Promise<void> {
  const usage = './ocho service install [--lan] [--user | --system], ./ocho service uninstall'
  knownOnly(args, ['--lan', '--user', '--system'], usage)
  const whose = whoseService(args)
  if (what === 'install') installService(whose, args.includes('--lan') ? ['--lan'] : []).forEach(l => say(l))
  else if (what === 'uninstall') uninstallService(whose, dataFolder('shop')).forEach(l => say(l))
  else throw new ClusterTrouble(`say what: ${usage}`)
}

async function upgradeCommand(args: string[]): Promise<void> {
  const [archive] = args
  if (!archive || args.length > 1) throw new ClusterTrouble('name the archive: ./ocho upgrade ocho-VERSION.tar.gz')
  await upgrade({
    archive: resolve(archive),
    data: dataFolder('shop'),
    passphrase: backupPassphrase(),
    whose: whoseService([]),
    say,
    withDatabase: work => withDatabase('shop', work),
  })
}

const [command, ...args] = process.argv.slice(2)
const commands: Record<string, () => Promise<void>> = {
  demo: () => run('demo', args),
  start: () => run('shop', args),
  dev,
  backup: () => backupCommand(args),
  restore: () => restoreCommand(args),
  verify: () => verifyCommand(args),
  status: () => statusCommand(args),
  service: () => serviceCommand(args),
  upgrade: () => upgradeCommand(args),
  pack: () => pack(args[0]).then(() => undefined),
}
const chosen = commands[command]
if (!chosen) {
  console.error('ocho: there is no such command; ./ocho alone lists them')
  process.exit(2)
}
chosen().catch((error: Error) => {
  console.error(`ocho ${command}: ${error.message.split('\n')[0]}`)
  process.exit(1)
})
