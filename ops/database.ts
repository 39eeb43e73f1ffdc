import { randomBytes } from 'node:crypto'
import { sql } from 'kysely'
import { connect, inShop, type Db } from '../server/db/connect'
import { migrate } from '../server/db/migrations/index'
import { fillRecords } from '../server/db/records'
import type { Cluster } from './cluster'

/** Brings the database to this version. */
export async function bringUpToDate(cluster: Pick<Cluster, 'ownerUrl'>): Promise<string[]> {
  const owner = connect(cluster.ownerUrl, 2)
  try {
    const done = await migrate(owner as unknown as Parameters<typeof migrate>[0])
    // visits from before records were kept leave theirs now
    if (done.includes('0002_standards')) {
      const { rows } = await sql<{ shop: string }>`select shop from shop`.execute(owner)
      for (const { shop } of rows) await inShop(owner, shop, tx => fillRecords(tx, shop))
    }
    return done
  } finally {
    await owner.destroy()
  }
}

/** How many shops there are: asked by the owner, since no role of the application can. */
export async function countShops(cluster: Pick<Cluster, 'ownerUrl'>): Promise<number> {
  return withOwner(cluster, async db => {
    const { rows } = await sql<{ count: number }>`select count(*)::int as count from shop`.execute(db)
    return rows[0].count
  })
}

export async function withOwner<T>(cluster: Pick<Cluster, 'ownerUrl'>, work: (db: Db) => Promise<T>): Promise<T> {
  const db = connect(cluster.ownerUrl, 2)
  try {
    return await work(db)
  } finally {
    await db.destroy()
  }
}

/** Eight letters and digits that cannot be mistaken for each other. */
export function oneTimeCode(): string {
  const letters = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789'
  return [...randomBytes(8)]
    .map(b => letters[b % letters.length])
    .join('')
    .replace(/(.{4})/, '$1-')
}
