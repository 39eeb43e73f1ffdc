import { sql, type Kysely, type Migration } from 'kysely'
import { wallOf } from './walls'

/** Tables whose rows belong to a shop: all of them. Every key begins with the shop. */
const TABLES = [
  'shop',
  'person',
  'session',
  'unlock',
  'customer',
  'bike',
  'job',
  'event',
  'note',
  'sheet',
  'recall',
] as const

/** The first tables, their walls between shops, and the one way to append to a ledger. */
export const first: Migration = {
  async up(db: Kysely<unknown>) {
    await sql
      .raw(
        `
create table shop (
  shop uuid primary key, code text not null unique, name text not null, zone text not null,
  demo boolean not null default false, schools jsonb not null default '{}', stands int not null default 4, next_job int not null default 1,
  created_at timestamptz not null default now());

create table person (
  shop uuid not null references shop, id uuid not null, name text not null,
  role text not null check (role in ('owner', 'mechanic', 'trainee')),
  password_hash text, pin_hash text not null, schools jsonb not null default '{}', active boolean not null default true,
  created_at timestamptz not null default now(), primary key (shop, id));
create unique index person_name on person (shop, lower(name)) where active;

create table session (
  shop uuid not null references shop, id uuid not null, token_hash text not null, device text not null,
  person uuid, created_at timestamptz not null default now(), last_seen_at timestamptz not null default now(),
  revoked_at timestamptz, primary key (shop, id), unique (shop, token_hash),
  foreign key (shop, person) references person (shop, id));

create table unlock (
  shop uuid not null, session uuid not null, person uuid not null, last_tap_at timestamptz not null default now(),
  primary key (shop, session, person),
  foreign key (shop, session) references session (shop, id), foreign key (shop, person) references person (shop, id));

create table customer (
  shop uuid not null references shop, id uuid not null, name text not null, contact text not null,
  created_at timestamptz not null default now(), primary key (shop, id));

create table bike (
  shop uuid not null references shop, id uuid not null, customer uuid not null, name text not null, frame_number text not null,
  created_at timestamptz not null default now(), primary key (shop, id),
  foreign key (shop, customer) references customer (shop, id));

create table job (
  shop uuid not null references shop, id uuid not null, number int not null, tag text not null, bike uuid not null,
  complaint text not null, promised_at timestamptz not null, sprockets int not null,
  place text not null default 'rack' check (place in ('rack', 'stand', 'door', 'gone')), stand int,
  known_job uuid, created_at timestamptz not null default now(), closed_at timestamptz,
  primary key (shop, id), unique (shop, number),
  foreign key (shop, bike) references bike (shop, id), foreign key (shop, known_job) references job (shop, id));
create unique index job_open_tag on job (shop, lower(tag)) where closed_at is null;
create index job_bike on job (shop, bike, created_at desc);
create index job_here on job (shop, place) where place <> 'gone';

create table event (
  shop uuid not null, id uuid not null, job uuid not null, seq int not null, person uuid not null, session uuid,
  signed_by uuid, verified boolean not null, v int not null, at timestamptz not null, based_on int not null,
  received_at timestamptz not null default now(), body jsonb not null,
  primary key (shop, id), unique (shop, job, seq),
  foreign key (shop, job) references job (shop, id));
-- person and signed_by come from the session and people are never deleted: a key there would lock one person's row
-- for every tap of every tablet

create table note (
  shop uuid not null, id uuid not null, job uuid not null, person uuid not null, text text not null,
  created_at timestamptz not null default now(), primary key (shop, id),
  foreign key (shop, job) references job (shop, id), foreign key (shop, person) references person (shop, id));
create index note_job on note (shop, job);

create table sheet (
  shop uuid not null, id uuid not null, job uuid not null, bike uuid not null, closed_at timestamptz not null, body jsonb not null,
  primary key (shop, id), foreign key (shop, job) references job (shop, id), foreign key (shop, bike) references bike (shop, id));
create index sheet_bike on sheet (shop, bike, closed_at desc);
create index sheet_job on sheet (shop, job, closed_at desc);

create table recall (
  shop uuid not null, id uuid not null, job uuid not null, due_on date not null, done_at timestamptz,
  primary key (shop, id), foreign key (shop, job) references job (shop, id));
create index recall_due on recall (shop, due_on);
`,
      )
      .execute(db)

    for (const table of TABLES) await sql.raw(wallOf(table)).execute(db)
    await sql
      .raw(
        `
grant update (next_job, name, zone, stands, schools) on shop to ocho_app;
grant update (name, role, password_hash, pin_hash, schools, active) on person to ocho_app;
grant update (person, last_seen_at, revoked_at) on session to ocho_app;
grant update (last_tap_at) on unlock to ocho_app;
grant delete on unlock to ocho_app;
grant update (name, contact) on customer to ocho_app;
grant update (name, frame_number) on bike to ocho_app;
grant update (place, stand, closed_at, tag, sprockets) on job to ocho_app;
grant update (done_at) on recall to ocho_app;
grant delete on recall to ocho_app;

create function ledger_is_append_only() returns trigger language plpgsql as $$
begin raise exception 'the ledger can only be appended to' using errcode = 'insufficient_privilege'; end $$;
create trigger event_append_only before update or delete or truncate on event
  for each statement execute function ledger_is_append_only();

-- The one look across shops: which shop a code means, before anyone is signed in.
create function shop_of_code(wanted text) returns table (shop uuid, demo boolean)
  language sql stable security definer set search_path = pg_catalog, public as
  $$ select s.shop, s.demo from public.shop s where s.code = lower(wanted) $$;
revoke all on function shop_of_code(text) from public;
grant execute on function shop_of_code(text) to ocho_app;

-- Appends entries at a job's end, one answer each. Same id and content: held. Same id, other content: conflict.
create function append_events(p_shop uuid, p_number int, p_session uuid, p_entries jsonb)
  returns table (id uuid, outcome text, seq int, received_at timestamptz)
  language plpgsql security invoker as $$
declare
  the_job uuid; sprocket_count int; last_seq int; e jsonb; got record;
begin
  perform set_config('ocho.shop', p_shop::text, true);
  select j.id, j.sprockets into the_job, sprocket_count from job j where j.shop = p_shop and j.number = p_number;
  if the_job is null then raise exception 'no such job' using errcode = 'no_data_found'; end if;
  perform pg_advisory_xact_lock(hashtextextended(the_job::text, 0));
  -- ordered and limited, so that it is one step down the index however little the planner knows of the table
  select v.seq into last_seq from event v where v.shop = p_shop and v.job = the_job order by v.seq desc limit 1;
  last_seq := coalesce(last_seq, 0);
  for e in select value from jsonb_array_elements(p_entries) loop
    id := (e->>'id')::uuid; seq := null; received_at := null;
    if (e->>'needs')::int > sprocket_count then
      outcome := 'outside'; seq := sprocket_count; return next; continue;
    end if;
    insert into event (shop, id, job, seq, person, session, signed_by, verified, v, at, based_on, body)
      values (p_shop, id, the_job, last_seq + 1, (e->>'by')::uuid, p_session, (e->>'signedBy')::uuid,
              (e->>'verified')::boolean, (e->>'v')::int, (e->>'at')::timestamptz, (e->>'basedOn')::int, e->'event')
      on conflict on constraint event_pkey do nothing
      returning event.seq, event.received_at into got;
    if found then
      last_seq := last_seq + 1; outcome := 'stored'; seq := got.seq; received_at := got.received_at;
    else
      select v.seq, v.received_at, (v.job = the_job and v.body = e->'event') as same into got
        from event v where v.shop = p_shop and v.id = (e->>'id')::uuid;
      outcome := case when got.same then 'held' else 'conflict' end; seq := got.seq; received_at := got.received_at;
    end if;
    return next;
  end loop;
end $$;
revoke all on function append_events(uuid, int, uuid, jsonb) from public;
grant execute on function append_events(uuid, int, uuid, jsonb) to ocho_app;`,
      )
      .execute(db)
  },
}
