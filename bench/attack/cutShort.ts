import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import { migrate } from '../../server/db/migrations/index'
import { startCluster } from '../../ops/cluster'
import { countShops, withOwner, withPostgres } from '../../ops/database'
import { inScratch } from '../../ops/restore'
import { fillEarlier } from '../../ops/testEarlier'
import { verifyLedger } from '../../ops/verify'
import { launcherIn, type Launcher } from './launched'
import { entryOf, found, makeShop, rng } from './rig'
import { append } from '../../server/db/ledger'

/** What cannot be done twice by halves, cut short at any moment: first start, demo, upgrade, backup, restore. */
export async function cutShort(many: number, seed: number): Promise<void> {
  const random = rng(seed)
  const told = (what: string, tries: number, bad: string[]) =>
    found({ what, tries, bad: bad.length, told: bad.slice(0, 3).join(' | ') || 'whole at the next start' })
  /** Cuts a command at a random moment a few times over, then lets it come to its end. */
  const cutThenStart = async (
    ocho: Launcher,
    kind: 'start' | 'demo',
    withinMs: number,
    cuts: number,
  ): Promise<string | null> => {
    for (let i = 0; i < cuts; i++) {
      const l = ocho.launch(kind)
      await sleep(random() * withinMs)
      await ocho.cut(l)
    }
    const last = ocho.launch(kind)
    const up = await ocho.up(last, 120_000)
    const words = up ? null : last.out().split('\n').slice(-3).join(' ')
    if (up) await ocho.stop(last)
    return words
  }

  let bad: string[] = []
  for (let n = 0; n < Math.ceil(many / 4); n++) {
    const ocho = await launcherIn()
    try {
      const trouble = await cutThenStart(ocho, 'start', 5_000, 4)
      if (trouble) bad.push(trouble)
    } finally {
      await ocho.remove()
    }
  }
  told('first starts cut short', Math.ceil(many / 4) * 4, bad)

  bad = []
  let whole = 0
  for (let n = 0; n <= Math.ceil(many / 10); n++) {
    const ocho = await launcherIn()
    try {
      // the first is left alone: how much a whole one holds
      const trouble = await cutThenStart(ocho, 'demo', 20_000, n === 0 ? 0 : 2)
      if (trouble) bad.push(trouble)
      const cluster = await startCluster(ocho.folder('demo'), () => undefined)
      try {
        const { jobs } = await verifyLedger(cluster.ownerUrl)
        if (n === 0) whole = jobs
        else if (jobs !== whole || whole === 0) bad.push(`a demo of ${jobs} jobs of ${whole}`)
      } finally {
        await cluster.stop()
      }
    } finally {
      await ocho.remove()
    }
  }
  told('demos cut short while they are loaded', Math.ceil(many / 10) * 2, bad)

  bad = []
  for (let n = 0; n < Math.ceil(many / 4); n++) {
    const ocho = await launcherIn()
    try {
      // a shop of an earlier version, with a few thousand entries to be chained
      const cluster = await startCluster(ocho.folder('shop'), () => undefined)
      await withPostgres(cluster, run => run('create database ocho'))
      await withOwner(cluster.ownerUrl, async db => {
        await migrate(db, '0009_days')
        await fillEarlier(db, 5_000)
      })
      await cluster.stop()
      const trouble = await cutThenStart(ocho, 'start', 4_000, 4)
      if (trouble) bad.push(trouble)
      const after = await startCluster(ocho.folder('shop'), () => undefined)
      try {
        const chain = await verifyLedger(after.ownerUrl)
        if (chain.entries !== 5_000 || chain.broken.length)
          bad.push(`${chain.entries} entries, ${chain.broken.length} broken`)
      } finally {
        await after.stop()
      }
    } finally {
      await ocho.remove()
    }
  }
  told('upgrades cut short, 5,000 entries in them', Math.ceil(many / 4) * 4, bad)

  const ocho = await launcherIn()
  try {
    const first = ocho.launch('start')
    if (!(await ocho.up(first))) throw new Error(first.out())
    const shop = await makeShop(ocho.addresses('shop').appUrl, 'cut-shop')
    const by = await shop.person('Ishbel')
    const fill = async (number: number, entries: number) => {
      for (let i = 0; i < entries; i += 100)
        await append(
          shop.db,
          shop.id,
          number,
          null,
          Array.from({ length: 100 }, () => ({
            ...entryOf(by, { kind: 'wheelOut', wheel: 'rear' }),
            verified: true,
            signedBy: null,
          })) as never,
        )
    }
    await fill(await shop.take('A1'), 3_000)
    bad = []
    for (let n = 0; n < many; n++) {
      const file = join(ocho.data, 'kept', `b${n}`)
      const l = ocho.launch('backup', file)
      await sleep(300 + random() * 1_500)
      await ocho.cut(l)
      if (!existsSync(file)) continue
      // one that has its name is whole
      await inScratch(ocho.addresses('shop'), file, null, async (_, held) => {
        if (held.events < 3_000) bad.push(`a backup of ${held.events} entries`)
      }).catch((e: Error) => bad.push(e.message))
    }
    told('backups cut short', many, bad)

    bad = []
    const old = join(ocho.data, 'kept', 'old')
    const made = ocho.launch('backup', old)
    if ((await made.code) !== 0) throw new Error(made.out())
    await fill(await shop.take('A2'), 500)
    const [before, now] = [3_001, 3_502]
    await shop.close()
    let restored = 0
    await ocho.stop(first)
    for (let n = 0; n < many; n++) {
      const l = ocho.launch('restore', old)
      await sleep(1_500 + random() * 5_000)
      await ocho.cut(l)
      const start = ocho.launch('start')
      if (!(await ocho.up(start))) bad.push(start.out().split('\n').slice(-3).join(' '))
      else {
        const chain = await verifyLedger(ocho.addresses('shop').ownerUrl)
        const expected = restored ? [before] : [before, now]
        if (!expected.includes(chain.entries) || chain.broken.length)
          bad.push(`${chain.entries} entries, ${chain.broken.length} broken`)
        if (chain.entries === before) restored++
        if ((await countShops(ocho.addresses('shop').ownerUrl)) !== 1) bad.push('not one shop')
        await ocho.stop(start)
      }
    }
    found({
      what: 'restores cut short',
      tries: many,
      bad: bad.length,
      told: bad.slice(0, 3).join(' | ') || `the old or the new, each whole; ${restored} times the new`,
    })
  } finally {
    await ocho.remove()
  }
}
