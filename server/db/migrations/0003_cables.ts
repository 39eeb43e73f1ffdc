import { sql, type Kysely, type Migration } from 'kysely'
import { wallOf } from './walls'

/** Rolls and offcuts on the wall, and a shop's own templates of runs. */
export const cables: Migration = {
  async up(db: Kysely<unknown>) {
    await sql
      .raw(
        `
-- a length is never changed: what is cut is used up, and what is left of it comes back as a row of its own
create table housing_stock (
  shop uuid not null references shop, id uuid not null, kind text not null, length_mm int not null check (length_mm > 0),
  roll boolean not null, label text not null default '', cut_from uuid, person uuid not null,
  made_at timestamptz not null default now(), used_at timestamptz, primary key (shop, id),
  foreign key (shop, person) references person (shop, id), foreign key (shop, cut_from) references housing_stock (shop, id));
create index housing_stock_there on housing_stock (shop, kind) where used_at is null;

create table run_template (
  shop uuid not null references shop, id uuid not null, name text not null, runs jsonb not null, person uuid not null,
  made_at timestamptz not null default now(), gone_at timestamptz, primary key (shop, id),
  foreign key (shop, person) references person (shop, id));
create unique index run_template_name on run_template (shop, lower(name)) where gone_at is null;
`,
      )
      .execute(db)
    for (const table of ['housing_stock', 'run_template']) await sql.raw(wallOf(table)).execute(db)
    await sql
      .raw(
        `
grant update (used_at) on housing_stock to ocho_app;
grant update (gone_at) on run_template to ocho_app;`,
      )
      .execute(db)
  },
}
