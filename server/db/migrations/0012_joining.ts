import { sql, type Kysely, type Migration } from 'kysely'
import { wallOf } from './walls'

/**
 * Codes by which a device joins a shop in place of a password, each once and for ten minutes. Kept as hashes; which
 * shop one is of is told by a function, as for a shop's own code, since who joins is of no shop yet.
 */
export const joining: Migration = {
  async up(db: Kysely<unknown>) {
    await sql
      .raw(
        `
create table joining (
  shop uuid not null references shop, id uuid not null, code_hash text not null unique, made_by uuid not null,
  made_at timestamptz not null default now(), expires_at timestamptz not null, used_at timestamptz, session uuid,
  primary key (shop, id), foreign key (shop, made_by) references person (shop, id),
  foreign key (shop, session) references session (shop, id));
create function shop_of_joining(wanted text) returns table (shop uuid)
  language sql stable security definer set search_path = pg_catalog, public as
  $$ select j.shop from public.joining j where j.code_hash = wanted $$;
revoke all on function shop_of_joining(text) from public;
grant execute on function shop_of_joining(text) to ocho_app;
`,
      )
      .execute(db)
    await sql.raw(wallOf('joining')).execute(db)
    await sql.raw('grant update (used_at, session) on joining to ocho_app').execute(db)
  },
}
