import { sql, type Kysely, type Migration } from 'kysely'
import { wallOf } from './walls'

/**
 * What makes a ledger hard to falsify and a shop's doings traceable: each entry follows from the one before it by a
 * hash, only the appending function can add one, and an audit trail says who did what an owner may. And what privacy
 * asks: bytes and words that are gone are gone.
 */
export const nights: Migration = {
  async up(db: Kysely<unknown>) {
    await sql
      .raw(
        `
-- written when health is asked: would a write succeed now?
create table gate.pulse (one boolean primary key default true check (one), at timestamptz not null);
grant select, insert, update on gate.pulse to ocho_app;

create table audit (
  shop uuid not null references shop, id uuid not null, n bigint generated always as identity, what text not null,
  detail text not null default '', person uuid, session uuid, at timestamptz not null default now(), primary key (shop, id));
create index audit_order on audit (shop, n desc);
create trigger audit_append_only before update or delete or truncate on audit
  for each statement execute function ledger_is_append_only();

-- when the password was last typed on a device: an owner's acts ask for it again after a while
alter table session add column confirmed_at timestamptz;
grant update (confirmed_at) on session to ocho_app;

-- erased at a customer's wish: words and pictures go, figures stay
alter table customer add column erased_at timestamptz;
grant update (erased_at) on customer to ocho_app;
grant update (text) on note to ocho_app;
grant update (was) on job_edit to ocho_app;
alter table photo alter column bytes drop not null;
grant update (bytes) on photo to ocho_app;
update photo set bytes = null where gone_at is not null;
alter table photo add column size int generated always as (octet_length(bytes)) stored;
create index photo_sizes on photo (shop) include (size) where gone_at is null;

alter table event add column hash bytea;
-- an entry's hash over the one before it in its job (FIPS 180-4, SHA-256) and all that was kept of it
create function event_hash(before bytea, e event) returns bytea language sql immutable set search_path = pg_catalog, public as $$
  select sha256(coalesce(before, ''::bytea) || convert_to(jsonb_build_array(e.id, e.job, e.seq, e.person, e.session, e.signed_by,
    e.verified, e.v, extract(epoch from e.at), e.based_on, extract(epoch from e.received_at), e.body)::text, 'UTF8')) $$;
alter table event disable trigger event_append_only;
do $$ declare e event; before bytea; of uuid;
begin
  for e in select * from event order by shop, job, seq loop
    if of is distinct from e.job then before := null; of := e.job; end if;
    before := event_hash(before, e);
    update event v set hash = before where v.shop = e.shop and v.id = e.id;
  end loop;
end $$;
alter table event enable trigger event_append_only;
alter table event alter column hash set not null;

drop function append_events(uuid, int, uuid, jsonb, boolean);
-- Appends entries at a job's end, one answer each. Same id and content: held. Same id, other content: conflict.
-- On a closed job nothing is kept until it was judged: the answer is closed, and the caller reads the log first.
-- It runs as a role of its own, the only one that may add to the ledger: an entry's place, the time it came and its hash
-- are given here and nowhere else.
create function append_events(p_shop uuid, p_number int, p_session uuid, p_entries jsonb, p_judged boolean)
  returns table (id uuid, outcome text, seq int, received_at timestamptz)
  language plpgsql security definer set search_path = pg_catalog, public, pg_temp as $$
declare
  the_job uuid; sprocket_count int; is_closed boolean; last_seq int; last_hash bytea; e jsonb; r event; got record;
begin
  if nullif(current_setting('ocho.shop', true), '')::uuid <> p_shop then
    raise exception 'another shop' using errcode = 'insufficient_privilege';
  end if;
  perform set_config('ocho.shop', p_shop::text, true);
  select j.id into the_job from job j where j.shop = p_shop and j.number = p_number;
  if the_job is null then raise exception 'no such job' using errcode = 'no_data_found'; end if;
  perform pg_advisory_xact_lock(hashtextextended(the_job::text, 0));
  -- read only now: who held the lock before may have closed the job, or put its drivetrain right
  select j.sprockets, j.closed_at is not null into sprocket_count, is_closed from job j where j.shop = p_shop and j.id = the_job;
  -- ordered and limited, so that it is one step down the index however little the planner knows of the table
  select v.seq, v.hash into last_seq, last_hash from event v where v.shop = p_shop and v.job = the_job order by v.seq desc limit 1;
  last_seq := coalesce(last_seq, 0);
  for e in select value from jsonb_array_elements(p_entries) loop
    id := (e->>'id')::uuid; seq := null; received_at := null; got := null;
    if is_closed and not p_judged then
      outcome := 'closed';
    elsif (e->>'needs')::int > sprocket_count then
      outcome := 'outside'; seq := sprocket_count; return next; continue;
    else
      r.shop := p_shop; r.id := id; r.job := the_job; r.seq := last_seq + 1; r.person := (e->>'by')::uuid;
      r.session := p_session; r.signed_by := (e->>'signedBy')::uuid; r.verified := (e->>'verified')::boolean;
      r.v := (e->>'v')::int; r.at := (e->>'at')::timestamptz; r.based_on := (e->>'basedOn')::int;
      r.received_at := now(); r.body := e->'event'; r.hash := event_hash(last_hash, r);
      insert into event select r.* on conflict on constraint event_pkey do nothing;
      if found then
        last_seq := r.seq; last_hash := r.hash; outcome := 'stored'; seq := r.seq; received_at := r.received_at;
        return next; continue;
      end if;
      outcome := 'conflict';
    end if;
    -- told before?
    select v.seq, v.received_at, (v.job = the_job and v.body = e->'event') as same into got
      from event v where v.shop = p_shop and v.id = (e->>'id')::uuid;
    if found then
      outcome := case when got.same then 'held' else 'conflict' end; seq := got.seq; received_at := got.received_at;
    end if;
    return next;
  end loop;
end $$;
revoke all on function append_events(uuid, int, uuid, jsonb, boolean) from public;
grant execute on function append_events(uuid, int, uuid, jsonb, boolean) to ocho_app;
revoke insert on event from ocho_app;
grant select on job to ocho_ledger;
grant select, insert on event to ocho_ledger;
`,
      )
      .execute(db)
    await sql.raw(wallOf('audit')).execute(db)
  },
}
