import { sql, type Kysely, type Migration } from 'kysely'

/**
 * Two figures of growth. The same hash of an entry in a language whose plans a connection keeps: as SQL it was parsed
 * and planned anew in every transaction, a fifth of what an append took (`npm run bench append`). And of a standard's
 * figures the latest bikes come first, so that the rest need not be read (`npm run bench records`).
 */
export const growth: Migration = {
  async up(db: Kysely<unknown>) {
    await sql
      .raw(
        `
create or replace function event_hash(before bytea, e event) returns bytea
  language plpgsql immutable set search_path = pg_catalog, public as $$ begin
  return sha256(coalesce(before, ''::bytea) || convert_to(jsonb_build_array(e.id, e.job, e.seq, e.person, e.session, e.signed_by,
    e.verified, e.v, extract(epoch from e.at), e.based_on, extract(epoch from e.received_at), e.body)::text, 'UTF8'));
end $$;

create index record_recent on record (shop, standard, figure, at desc) include (frame, value) where latest;
drop index record_latest;
`,
      )
      .execute(db)
  },
}
