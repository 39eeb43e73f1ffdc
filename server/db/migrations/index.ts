import { Migrator, sql, type Kysely } from 'kysely'
import type { Db } from '../connect'
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
import { nights } from './0011_nights'
import { joining } from './0012_joining'
import { many } from './0013_many'
import { knows } from './0014_knows'
import { learns } from './0015_learns'
import { practises } from './0016_practises'
import { took } from './0017_took'
import { riding } from './0018_riding'
import { growth } from './0019_growth'
import { cuts } from './0020_cuts'

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
  '0011_nights': nights,
  '0012_joining': joining,
  '0013_many': many,
  '0014_knows': knows,
  '0015_learns': learns,
  '0016_practises': practises,
  '0017_took': took,
  '0018_riding': riding,
  '0019_growth': growth,
  '0020_cuts': cuts,
}

/** Every migration of this version, the first one first. */
export const MIGRATION_NAMES = Object.keys(MIGRATIONS)

const migratorOf = (owner: Kysely<unknown>) =>
  new Migrator({ db: owner, provider: { getMigrations: async () => MIGRATIONS } })

/**
 * Brings the database to this version, or to an earlier one for a test; run by its owner, in one transaction: what
 * cannot be migrated leaves all as it was.
 * @throws the error of the migration that failed
 */
export async function migrate(owner: Db | Kysely<unknown>, to?: string): Promise<string[]> {
  const migrator = migratorOf(owner as Kysely<unknown>)
  const { error, results } = await (to === undefined ? migrator.migrateToLatest() : migrator.migrateTo(to))
  if (error) throw error
  return (results ?? []).filter(r => r.status === 'Success').map(r => r.migrationName)
}

/**
 * Gives the appending function to its role: a restored database has it from whoever restored it. Nothing before the
 * migration that made it so.
 */
export async function settleOwners(owner: Db): Promise<void> {
  await sql
    .raw(
      `do $$ begin
  perform pg_advisory_xact_lock(hashtextextended('ocho owners', 0));
  if exists (select 1 from information_schema.columns where table_name = 'event' and column_name = 'hash')
    and (select r.rolname from pg_proc p join pg_roles r on r.oid = p.proowner
      where p.oid = 'append_events(uuid, int, uuid, jsonb, boolean)'::regprocedure) <> 'ocho_ledger' then
    -- an owner who is no superuser may give it away only to who could have made it
    grant create on schema public to ocho_ledger;
    alter function append_events(uuid, int, uuid, jsonb, boolean) owner to ocho_ledger;
    revoke create on schema public from ocho_ledger;
  end if;
end $$`,
    )
    .execute(owner)
}

/** Those that a database has not had yet.  */
export async function pendingMigrations(owner: Db): Promise<string[]> {
  const known = await migratorOf(owner as unknown as Kysely<unknown>).getMigrations()
  return known.filter(m => m.executedAt === undefined).map(m => m.name)
}
