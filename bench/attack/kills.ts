import { randomUUID } from 'node:crypto'
import { setTimeout as sleep } from 'node:timers/promises'
import { sql } from 'kysely'
import { reduce } from '#core/ledger/reduce'
import { withOwner } from '../../ops/database'
import { verifyLedger } from '../../ops/verify'
import { inShop } from '../../server/db/connect'
import { entriesAfter } from '../../server/db/ledger'
import { kill, launcherIn } from './launched'
import { entryOf, found, makeShop, percentile, rng, signIn, type Caller } from './rig'

const CLIENTS = 4

/**
 * Kills of server, database, both and launcher while four tablets tap: nothing acknowledged is lost, nothing doubled.
 */
export async function kills(many: number, seed: number): Promise<void> {
  const random = rng(seed)
  const ocho = await launcherIn()
  let launched = ocho.launch('start')
  const acknowledged = new Set<string>()
  let stop = false
  let shop: Awaited<ReturnType<typeof makeShop>> | null = null
  try {
    if (!(await ocho.up(launched))) throw new Error(launched.out())
    shop = await makeShop(ocho.addresses('shop').appUrl, 'killed-shop')
    const by = await shop.person('Ishbel')
    const jobs = await Promise.all(Array.from({ length: CLIENTS }, (_, i) => shop!.take(`K${i}`)))
    const callers = await Promise.all(jobs.map(() => signIn(ocho.url, 'killed-shop', 'Ishbel')))
    /** A tablet: the same tap again and again until it is answered, then the next. */
    const tap = async (caller: Caller, job: number) => {
      while (!stop) {
        const entry = entryOf(by, { kind: 'wheelOut', wheel: 'rear' }, randomUUID())
        for (;;) {
          const answer = await caller
            .send('POST', `/api/jobs/${job}/events`, { entries: [entry] })
            .then(async a => (a.ok ? ((await a.json()) as { answers: { is: string }[] }) : a.status))
            .catch(() => 0)
          if (typeof answer === 'object') {
            if (!['stored', 'held'].includes(answer.answers[0]!.is)) throw new Error(JSON.stringify(answer))
            acknowledged.add(entry.id)
            break
          }
          if (answer >= 400 && answer < 500) throw new Error(`a tap was refused with ${answer}`)
          if (stop) return
          await sleep(50)
        }
        await sleep(15)
      }
    }
    const tapping = Promise.all(callers.map((c, i) => tap(c, jobs[i]!)))
    const back: number[] = []
    let unable = 0
    const counts = { server: 0, database: 0, both: 0, launcher: 0 }
    const order = ['server', 'database', 'both', 'server', 'database', 'launcher'] as const
    for (let n = 0; n < many; n++) {
      await sleep(random() * 400)
      const what = order[n % order.length]!
      const { server, database } = ocho.pids('shop')
      const before = acknowledged.size
      const start = performance.now()
      if (what === 'launcher') {
        await ocho.cut(launched)
        launched = ocho.launch('start')
        if (!(await ocho.up(launched))) unable++
      } else {
        if (what !== 'database') kill(server)
        if (what !== 'server') kill(database)
      }
      counts[what]++
      // back when a tap is acknowledged that was not before
      const end = Date.now() + 60_000
      while (acknowledged.size < before + CLIENTS + 1 && Date.now() < end) await sleep(20)
      if (acknowledged.size < before + CLIENTS + 1) unable++
      back.push(performance.now() - start)
      if (n % 50 === 49) console.log(`  ${n + 1} kills, ${acknowledged.size} taps acknowledged`)
    }
    stop = true
    await tapping
    const { rows } = await inShop(shop.db, shop.id, tx =>
      sql<{
        id: string
        n: number
      }>`select id, count(*)::int as n from event where shop = ${shop!.id} group by id`.execute(tx),
    )
    const kept = new Map(rows.map(r => [r.id, r.n]))
    const lost = [...acknowledged].filter(id => !kept.has(id)).length
    const doubled = rows.filter(r => r.n !== 1).length
    let unread = 0
    await withOwner(ocho.addresses('shop').ownerUrl, async db => {
      const all = await inShop(db, shop!.id, tx =>
        tx.selectFrom('job').select('id').where('shop', '=', shop!.id).execute(),
      )
      for (const { id } of all)
        try {
          reduce(await inShop(db, shop!.id, tx => entriesAfter(tx, shop!.id, id, 0)))
        } catch {
          unread++
        }
    })
    const chain = await verifyLedger(ocho.addresses('shop').ownerUrl)
    const seconds = (ms: number) => `${(ms / 1000).toFixed(1)} s`
    found({
      what: `kills while ${CLIENTS} tablets tap: ${Object.entries(counts)
        .map(([k, n]) => `${n} ${k}`)
        .join(', ')}`,
      tries: many,
      bad: lost + doubled + unread + unable + chain.broken.length,
      told: [
        `${acknowledged.size} taps acknowledged, ${lost} lost, ${doubled} doubled`,
        `${unread} jobs unreadable`,
        `${chain.broken.length} entries out of their chain`,
        `${unable} times not back`,
        `back in ${seconds(percentile(back, 50))} by half, ${seconds(Math.max(...back))} at most`,
      ].join('; '),
    })
  } finally {
    stop = true
    await shop?.close()
    await ocho.remove()
  }
}
