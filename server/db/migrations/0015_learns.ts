import { sql, type Kysely, type Migration } from 'kysely'
import { wallOf } from './walls'

/**
 * What the advice learns of a shop's bikes, a row a closed job; and of a person's ear and eye, a row a person and job.
 */
export const learns: Migration = {
  async up(db: Kysely<unknown>) {
    await sql
      .raw(
        `
create table habit (
  shop uuid not null references shop, job uuid not null, at timestamptz not null, frame text, cable_days real,
  back boolean not null, new_cable boolean not null, found text[] not null, friction_mm real, stop_mm real, stop_sd real,
  primary key (shop, job), foreign key (shop, job) references job (shop, id));
create index habit_latest on habit (shop, at desc);

-- read for the person themselves alone
create table sense (
  shop uuid not null references shop, person uuid not null, job uuid not null, at timestamptz not null,
  reports real not null, wrong real not null, looks real not null, squared real not null, primary key (shop, person, job),
  foreign key (shop, job) references job (shop, id), foreign key (shop, person) references person (shop, id));
create index sense_of_job on sense (shop, job);

-- closed jobs leave their habits with their records
update shop set records_stale = true;
`,
      )
      .execute(db)
    for (const table of ['habit', 'sense']) await sql.raw(wallOf(table)).execute(db)
    await sql.raw('grant delete on habit, sense to ocho_app').execute(db)
  },
}
