import { sql, type Kysely, type Migration } from 'kysely'
import { wallOf } from './walls'

/**
 * Parts of the ledger. Shops spread over them by hash: a host of many keeps indexes small, and tends one part at a
 * time.
 */
const PARTS = 16

/**
 * Room for many shops and many servers: the ledger in parts by shop, and a first run that counts once whichever server
 * it was told to. Nobody reaches a part but through the whole: no role is granted one.
 */
export const many: Migration = {
  async up(db: Kysely<unknown>) {
    await sql
      .raw(
        `
alter table event rename to event_whole;
alter table event_whole rename constraint event_pkey to event_whole_pkey;
alter table event_whole rename constraint event_shop_job_seq_key to event_whole_seq;
drop index events_of_person;
create table event (
  shop uuid not null, id uuid not null, job uuid not null, seq int not null, person uuid not null, session uuid,
  signed_by uuid, verified boolean not null, v int not null, at timestamptz not null, based_on int not null,
  received_at timestamptz not null default now(), body jsonb not null, hash bytea not null,
  constraint event_pkey primary key (shop, id), constraint event_shop_job_seq_key unique (shop, job, seq),
  foreign key (shop, job) references job (shop, id)) partition by hash (shop);
${Array.from({ length: PARTS }, (_, i) => `create table event_${i} partition of event for values with (modulus ${PARTS}, remainder ${i});`).join('\n')}
insert into event (shop, id, job, seq, person, session, signed_by, verified, v, at, based_on, received_at, body, hash)
  select shop, id, job, seq, person, session, signed_by, verified, v, at, based_on, received_at, body, hash
  from event_whole order by shop, job, seq;
create index events_of_person on event (shop, person, received_at);
create trigger event_append_only before update or delete or truncate on event
  for each statement execute function ledger_is_append_only();

drop function event_hash(bytea, event_whole);
create function event_hash(before bytea, e event) returns bytea language sql immutable set search_path = pg_catalog, public as $$
  select sha256(coalesce(before, ''::bytea) || convert_to(jsonb_build_array(e.id, e.job, e.seq, e.person, e.session, e.signed_by,
    e.verified, e.v, extract(epoch from e.at), e.based_on, extract(epoch from e.received_at), e.body)::text, 'UTF8')) $$;
drop table event_whole;

-- what a search looks through, in small letters and as digits alone: reckoned when it is written, not for every search
alter table bike add column words text generated always as (lower(name || E'\\n' || frame_number)) stored;
alter table customer add column words text generated always as (lower(name)) stored,
  add column digits text generated always as (regexp_replace(contact, '[^0-9]', '', 'g')) stored;
alter table job add column tag_key text generated always as (lower(tag)) stored;
create index job_shown on job (shop) where place <> 'gone' or call is not null;
create index job_tag on job (shop, tag_key);
create index bike_customer on bike (shop, customer);

-- files taken in: what came of which, so that a wrong one can be taken back
create table taken_in (
  shop uuid not null references shop, id uuid not null, person uuid not null, at timestamptz not null default now(),
  records int not null, claims int not null, taken_back_at timestamptz, primary key (shop, id),
  foreign key (shop, person) references person (shop, id));
create index taken_in_order on taken_in (shop, at desc);
alter table record add column taken_in uuid;
create index record_taken_in on record (shop, taken_in) where taken_in is not null;
alter table shop_value add column taken_in uuid;
create index shop_value_taken_in on shop_value (shop, taken_in) where taken_in is not null;

create table gate.first_run (code_hash text primary key, used_at timestamptz not null default now());
grant select, insert on gate.first_run to ocho_app;
`,
      )
      .execute(db)
    await sql.raw(wallOf('event')).execute(db)
    await sql.raw(wallOf('taken_in')).execute(db)
    await sql.raw('grant update (taken_back_at) on taken_in to ocho_app').execute(db)
    await sql.raw('revoke insert on event from ocho_app; grant select, insert on event to ocho_ledger;').execute(db)
    // a part stands behind the same wall, should anybody ever be granted one
    for (let i = 0; i < PARTS; i++) {
      await sql.raw(wallOf(`event_${i}`)).execute(db)
      await sql.raw(`revoke all on event_${i} from ocho_app`).execute(db)
    }
  },
}
