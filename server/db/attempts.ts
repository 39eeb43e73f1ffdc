import { CompiledQuery } from 'kysely'
import type { Db } from './connect'

/** The counting package's way to the database: over the server's one pool. */
export const attemptStore = (db: () => Db) => ({
  async query({ text, values = [] }: { text: string; values?: unknown[] }) {
    const { rows, numAffectedRows } = await db().executeQuery(CompiledQuery.raw(text, values))
    return { rows, rowCount: numAffectedRows === undefined ? rows.length : Number(numAffectedRows) }
  },
})
