import { Migrator, type Kysely } from 'kysely'
import { first } from './0001_first'
import { standards } from './0002_standards'
import { cables } from './0003_cables'
import { photos } from './0004_photos'
import { gates } from './0005_gates'
import { details } from './0006_details'
import { seen } from './0007_seen'
import { merge } from './0008_merge'
import { days } from './0009_days'
import { attempts } from './0010_attempts'

const MIGRATIONS = {
  '0001_first': first,
  '0002_standards': standards,
  '0003_cables': cables,
  '0004_photos': photos,
  '0005_gates': gates,
  '0006_details': details,
  '0007_seen': seen,
  '0008_merge': merge,
  '0009_days': days,
  '0010_attempts': attempts,
}

/** Brings the database to this version; run by its owner. @throws the error of the migration that failed */
export async function migrate(owner: Kysely<unknown>): Promise<string[]> {
  const migrator = new Migrator({ db: owner, provider: { getMigrations: async () => MIGRATIONS } })
  const { error, results } = await migrator.migrateToLatest()
  if (error) throw error
  return (results ?? []).filter(r => r.status === 'Success').map(r => r.migrationName)
}
