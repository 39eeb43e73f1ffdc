import { sql, type Kysely, type Migration } from 'kysely'

/**
 * Tries of passwords, PINs and codes (in a schema of their own: no row of any shop), counted here so that no number of
 * them at once and no restart forgets one; keys are hashes. The columns are the counting package's own. Who signed a
 * device in, so that a new password or a leaver ends what they opened.
 */
export const attempts: Migration = {
  async up(db: Kysely<unknown>) {
    await sql
      .raw(
        `
create schema gate;
grant usage on schema gate to ocho_app;
create table gate.attempt (key varchar(255) primary key, points int not null default 0, expire bigint);
create index attempts_ended on gate.attempt (expire);
grant select, insert, update, delete on gate.attempt to ocho_app;
alter table session add column opened_by uuid, add foreign key (shop, opened_by) references person (shop, id);
update session set opened_by = person;
`,
      )
      .execute(db)
  },
}
