import { execFileSync, spawn } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { homedir } from 'node:os'
import { dirname, join, resolve } from 'node:path'
import { buildDemo } from '../demo/build'
import { DEMO_ENV, DEMO_PEOPLE, DEMO_SHOP } from '../demo/people'
import { connect } from '../server/db/connect'
import { shopOfCode } from '../server/db/people'
import { ClusterTrouble, postgresPrograms, startCluster, until, type Cluster } from './cluster'
import { bringUpToDate, countShops, oneTimeCode } from './database'
import { say } from './say'
import { ROOT, startServer } from './server'

const DEFAULT_PORT = 8188
const DEV_PORT = 8189
/** Whose data: the demo's, the shop's, or a demo's to work on the code with. */
type Kind = 'demo' | 'shop' | 'dev'

/** Demo and real shops never share a cluster: the demo's passwords are published. */
function dataFolder(kind: Kind): string {
  const base =
    process.env.OCHO_DATA ?? (process.getuid?.() === 0 ? '/var/lib/ocho' : join(homedir(), '.local', 'share', 'ocho'))
  return join(resolve(base), kind)
}

async function run(kind: 'demo' | 'shop'): Promise<void> {
  await stopLeftOverServer(kind)
  const cluster = await startCluster(dataFolder(kind), say)
  say(`database runs on port ${cluster.port}, data in ${cluster.folder}`)
  let server: Awaited<ReturnType<typeof startServer>> | undefined
  let stopping = false
  const stop = async (code: number) => {
    if (stopping) return
    stopping = true
    say('stopping')
    await server?.stop()
    await cluster.stop()
    rmSync(serverPidFile(kind), { force: true })
    say('stopped')
    process.exit(code)
  }
  process.on('SIGINT', () => void stop(0))
  process.on('SIGTERM', () => void stop(0))
  try {
    const done = await bringUpToDate(cluster)
    if (done.length) say(`migrated: ${done.join(', ')}`)
    if (kind === 'demo') await loadDemo(cluster)
    const firstRunCode = (await countShops(cluster)) === 0 ? oneTimeCode() : undefined
    server = await startServer({
      appUrl: cluster.appUrl,
      port: Number(process.env.OCHO_PORT ?? DEFAULT_PORT),
      firstRunCode,
      ...(kind === 'demo' ? { env: DEMO_ENV } : {}),
    })
    writeFileSync(serverPidFile(kind), String(server.pid))
    say(`Ocho is at ${server.url}`)
    if (firstRunCode) say(`first run: open it and type the code ${firstRunCode}`)
    if (kind === 'demo')
      say(
        `demo: shop ${DEMO_SHOP.code}, ${DEMO_PEOPLE[0].name}, password ${DEMO_PEOPLE[0].password}, PIN ${DEMO_PEOPLE[0].pin}`,
      )
    say('Ctrl-C stops it')
    const code = await server.ended
    if (!stopping) {
      console.error('Ocho ended by itself: see the message above, then start it again')
      await stop(code ?? 1)
    }
  } catch (error) {
    await server?.stop()
    await cluster.stop()
    throw error
  }
}

const serverPidFile = (kind: 'demo' | 'shop'): string => join(dataFolder(kind), 'server.pid')

/** A launcher that was killed leaves its server behind, holding the port: it is stopped first. */
async function stopLeftOverServer(kind: 'demo' | 'shop'): Promise<void> {
  const file = serverPidFile(kind)
  if (!existsSync(file)) return
  const command = join('/proc', readFileSync(file, 'utf8').trim(), 'cmdline')
  const runs = () =>
    existsSync(command) && readFileSync(command, 'utf8').includes(join('.output', 'server', 'index.mjs'))
  if (runs()) {
    say('stopping a server left over from before')
    process.kill(Number(readFileSync(file, 'utf8')), 'SIGTERM')
    await until(async () => !runs(), 10_000, 'A server left over from before did not stop: end it by hand')
  }
  rmSync(file, { force: true })
}

/** Database with demo data and a server that reloads as the code changes; Ctrl-C stops both. */
async function dev(): Promise<void> {
  const cluster = await startCluster(dataFolder('dev'), say)
  try {
    await bringUpToDate(cluster)
    await loadDemo(cluster)
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

async function loadDemo(cluster: Cluster): Promise<void> {
  const db = connect(cluster.appUrl, 4)
  try {
    if (await shopOfCode(db, DEMO_SHOP.code)) return
    say('loading the demo shop')
    await buildDemo(db, { say })
  } finally {
    await db.destroy()
  }
}

/** Which data a backup means: the shop's, or the demo's with --demo. */
async function withCluster(args: string[], work: (cluster: Cluster, file: string) => Promise<void>): Promise<void> {
  const kind = args.includes('--demo') ? 'demo' : 'shop'
  const file = args.find(a => !a.startsWith('--'))
  if (!file)
    throw new ClusterTrouble("name the file: ./ocho backup FILE or ./ocho restore FILE (--demo for the demo's data)")
  const cluster = await startCluster(dataFolder(kind), say)
  try {
    await work(cluster, resolve(file))
  } finally {
    await cluster.stop()
  }
}

async function backup(args: string[]): Promise<void> {
  await withCluster(args, async (cluster, file) => {
    mkdirSync(dirname(file), { recursive: true })
    execFileSync(
      join(postgresPrograms(), 'pg_dump'),
      ['--format=custom', `--file=${file}`, '--no-owner', cluster.ownerUrl],
      { stdio: ['ignore', 'inherit', 'inherit'] },
    )
    say(`backup written: ${file}, ${(statSync(file).size / 1024).toFixed(0)} kB`)
  })
}

async function restore(args: string[]): Promise<void> {
  await withCluster(args, async (cluster, file) => {
    if (!existsSync(file)) throw new ClusterTrouble(`there is no file ${file}`)
    // one transaction: either all of the backup is there afterwards, or what was there before
    execFileSync(
      join(postgresPrograms(), 'pg_restore'),
      ['--clean', '--if-exists', '--no-owner', '--single-transaction', `--dbname=${cluster.ownerUrl}`, file],
      { stdio: ['ignore', 'inherit', 'inherit'] },
    )
    await bringUpToDate(cluster)
    say(`restored from ${file}: ${await countShops(cluster)} shop(s)`)
  })
}

const [command, ...args] = process.argv.slice(2)
const commands: Record<string, () => Promise<void>> = {
  demo: () => run('demo'),
  start: () => run('shop'),
  dev,
  backup: () => backup(args),
  restore: () => restore(args),
}
const chosen = commands[command]
if (!chosen) {
  console.error('usage: ./ocho demo | start | dev | test | backup FILE [--demo] | restore FILE [--demo]')
  process.exit(2)
}
chosen().catch((error: Error) => {
  console.error(`ocho ${command}: ${error.message.split('\n')[0]}`)
  process.exit(1)
})
