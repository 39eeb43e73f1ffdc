import { sql, type Kysely, type Migration } from 'kysely'
import { wallOf } from './walls'

/**
 * What a shop measured of the catalogue, the records its visits leave, and the kind of frame they are kept apart by.
 */
export const standards: Migration = {
  async up(db: Kysely<unknown>) {
    await sql
      .raw(
        `
alter table bike add column frame_kind text;
grant update (frame_kind) on bike to ocho_app;

-- one row a claim, never changed: the latest of each figure is in force, the others are its history
create table shop_value (
  shop uuid not null references shop, id uuid not null, n bigint generated always as identity,
  kind text not null, entry text not null, figure text not null, value jsonb, note text not null default '',
  person uuid not null, at timestamptz not null default now(), primary key (shop, id),
  foreign key (shop, person) references person (shop, id));
create index shop_value_order on shop_value (shop, n);
create trigger shop_value_append_only before update or delete or truncate on shop_value
  for each statement execute function ledger_is_append_only();

-- one row a figure of a visit; latest is the newest of its bike, the one that medians count
create table record (
  shop uuid not null references shop, id uuid not null, job uuid, bike uuid not null, standard text not null, figure text not null,
  frame text, value double precision not null, at timestamptz not null, latest boolean not null default true, origin text,
  primary key (shop, id), foreign key (shop, job) references job (shop, id));
-- origin says from which file a row came; its bike is then one of another shop and has no row here
create index record_latest on record (shop, standard, figure, frame, value) where latest;
create index record_shown on record (shop, standard, figure, at desc);
create index record_visits on record (shop, figure, standard) where latest;
-- medians are read from the index alone, which wants the table vacuumed soon after a day's visits
alter table record set (autovacuum_vacuum_insert_scale_factor = 0.02, autovacuum_vacuum_scale_factor = 0.02);
create index record_job on record (shop, job);
create index record_bike on record (shop, bike, at desc);
`,
      )
      .execute(db)
    for (const table of ['shop_value', 'record']) await sql.raw(wallOf(table)).execute(db)
    await sql
      .raw(
        `
grant update (latest) on record to ocho_app;
grant delete on record to ocho_app;`,
      )
      .execute(db)
  },
}
