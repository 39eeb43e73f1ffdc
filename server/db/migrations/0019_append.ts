import { sql, type Kysely, type Migration } from 'kysely'

/**
 * The same hash of an entry, in a language whose plans a connection keeps: as SQL it was parsed and planned anew in
 * every transaction, a fifth of what an append took (`npm run bench append`).
 */
export const append: Migration = {
  async up(db: Kysely<unknown>) {
    await sql
      .raw(
        `
create or replace function event_hash(before bytea, e event) returns bytea
  language plpgsql immutable set search_path = pg_catalog, public as $$ begin
  return sha256(coalesce(before, ''::bytea) || convert_to(jsonb_build_array(e.id, e.job, e.seq, e.person, e.session, e.signed_by,
    e.verified, e.v, extract(epoch from e.at), e.based_on, extract(epoch from e.received_at), e.body)::text, 'UTF8'));
end $$;
`,
      )
      .execute(db)
  },
}
