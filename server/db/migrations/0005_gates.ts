import { sql, type Kysely, type Migration } from 'kysely'

/**
 * Gates judged under the job's lock: one sheet and one open recall a hand-back, entries of a closed job judged before
 * they are kept, and what a customer must be called for.
 */
export const gates: Migration = {
  async up(db: Kysely<unknown>) {
    await sql
      .raw(
        `
-- which entry froze a sheet: one entry, one sheet
alter table sheet add column entry uuid;
create unique index sheet_of_entry on sheet (shop, entry) where entry is not null;

-- hand-backs in the same moment could book several recalls: the first stays
delete from recall r where r.done_at is null and exists (
  select 1 from recall o where o.shop = r.shop and o.job = r.job and o.done_at is null and (o.due_on, o.id) < (r.due_on, r.id));
create unique index recall_open on recall (shop, job) where done_at is null;

-- something failed after the bike was handed back
alter table job add column call text;
grant update (call) on job to ocho_app;

drop function append_events(uuid, int, uuid, jsonb);
-- Appends entries at a job's end, one answer each. Same id and content: held. Same id, other content: conflict.
-- On a closed job nothing is kept until it was judged: the answer is closed, and the caller reads the log first.
create function append_events(p_shop uuid, p_number int, p_session uuid, p_entries jsonb, p_judged boolean)
  returns table (id uuid, outcome text, seq int, received_at timestamptz)
  language plpgsql security invoker as $$
declare
  the_job uuid; sprocket_count int; is_closed boolean; last_seq int; e jsonb; got record;
begin
  perform set_config('ocho.shop', p_shop::text, true);
  select j.id into the_job from job j where j.shop = p_shop and j.number = p_number;
  if the_job is null then raise exception 'no such job' using errcode = 'no_data_found'; end if;
  perform pg_advisory_xact_lock(hashtextextended(the_job::text, 0));
  -- read only now: who held the lock before may have closed the job, or put its drivetrain right
  select j.sprockets, j.closed_at is not null into sprocket_count, is_closed from job j where j.shop = p_shop and j.id = the_job;
  -- ordered and limited, so that it is one step down the index however little the planner knows of the table
  select v.seq into last_seq from event v where v.shop = p_shop and v.job = the_job order by v.seq desc limit 1;
  last_seq := coalesce(last_seq, 0);
  for e in select value from jsonb_array_elements(p_entries) loop
    id := (e->>'id')::uuid; seq := null; received_at := null; got := null;
    if is_closed and not p_judged then
      outcome := 'closed';
    elsif (e->>'needs')::int > sprocket_count then
      outcome := 'outside'; seq := sprocket_count; return next; continue;
    else
      insert into event (shop, id, job, seq, person, session, signed_by, verified, v, at, based_on, body)
        values (p_shop, id, the_job, last_seq + 1, (e->>'by')::uuid, p_session, (e->>'signedBy')::uuid,
                (e->>'verified')::boolean, (e->>'v')::int, (e->>'at')::timestamptz, (e->>'basedOn')::int, e->'event')
        on conflict on constraint event_pkey do nothing
        returning event.seq, event.received_at into got;
      if found then
        last_seq := last_seq + 1; outcome := 'stored'; seq := got.seq; received_at := got.received_at;
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
grant execute on function append_events(uuid, int, uuid, jsonb, boolean) to ocho_app;`,
      )
      .execute(db)
  },
}
