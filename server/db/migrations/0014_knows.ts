import { sql, type Kysely, type Migration } from 'kysely'
import { wallOf } from './walls'

/**
 * What a shop knows reaches the next bike: records of every run, how runs settled, minutes of jobs; the recall desk
 * with its messages and its calendar.
 */
export const knows: Migration = {
  async up(db: Kysely<unknown>) {
    await sql
      .raw(
        `
-- visits before this version leave their records anew: more is kept of them, under finer names
alter table shop add column records_stale boolean not null default false;
update shop set records_stale = true;
create index record_wide on record (shop, figure, frame, at desc) where latest;

-- minutes at the stand, and which parts were worked on: of jobs, never of people
alter table sheet add column minutes real, add column work text[] not null default '{}';
create index sheet_closed on sheet (shop, closed_at);

-- one row a bike that came back after its run was renewed: how far it had gone slack, from how it left
create table settling (
  shop uuid not null references shop, id uuid not null, job uuid not null, housing_mm real, bedded boolean not null,
  days real not null, turns real not null, at timestamptz not null, primary key (shop, id),
  unique (shop, job), foreign key (shop, job) references job (shop, id));

alter table recall add column why text not null default 'settle', add column state text not null default 'due'
    check (state in ('due', 'came', 'done', 'notneeded')),
  add column first_due_on date, add column turns real, add column report text not null default '',
  add column expected jsonb;
update recall set state = 'done' where done_at is not null;
grant update (due_on, first_due_on, state, turns, report) on recall to ocho_app;
alter table customer add column no_messages boolean not null default false;
grant update (no_messages) on customer to ocho_app;
alter table shop add column desk jsonb;
grant update (desk) on shop to ocho_app;

-- messages to customers: written here, sent by whatever gateway the shop has
create table message (
  shop uuid not null references shop, id uuid not null, recall uuid not null, customer uuid not null, way text not null,
  address text not null, body text not null, state text not null default 'queued'
    check (state in ('queued', 'sending', 'sent', 'failed', 'answered', 'withdrawn')),
  not_before timestamptz not null default now(), tries int not null default 0, trouble text not null default '',
  answer text not null default '', person uuid not null, made_at timestamptz not null default now(), sent_at timestamptz,
  answered_at timestamptz, primary key (shop, id), foreign key (shop, customer) references customer (shop, id),
  foreign key (shop, person) references person (shop, id));
create index message_waits on message (shop, not_before) where state in ('queued', 'sending');
create index message_of_recall on message (shop, recall);

-- who may read the recalls as a calendar: a token each, kept as a hash, revoked with a touch
create table calendar (
  shop uuid not null references shop, id uuid not null, token_hash text not null, person uuid not null,
  made_at timestamptz not null default now(), seen_at timestamptz, revoked_at timestamptz, primary key (shop, id),
  foreign key (shop, person) references person (shop, id));
create function shop_of_calendar(wanted text) returns table (shop uuid)
  language sql stable security definer set search_path = pg_catalog, public as
  $$ select c.shop from public.calendar c where c.token_hash = wanted and c.revoked_at is null $$;
create unique index calendar_token on calendar (token_hash);
revoke all on function shop_of_calendar(text) from public;
grant execute on function shop_of_calendar(text) to ocho_app;
`,
      )
      .execute(db)
    for (const table of ['settling', 'message', 'calendar']) await sql.raw(wallOf(table)).execute(db)
    await sql
      .raw(
        `
grant delete on settling to ocho_app;
grant update (address, body, state, not_before, tries, trouble, answer, sent_at, answered_at) on message to ocho_app;
grant update (seen_at, revoked_at) on calendar to ocho_app;`,
      )
      .execute(db)
  },
}
