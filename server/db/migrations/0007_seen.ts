import { sql, type Kysely, type Migration } from 'kysely'

/**
 * What the eye counted on a bike, for the next time it comes; and which stock drivetrain a job has, for what is usual
 * here.
 */
export const seen: Migration = {
  async up(db: Kysely<unknown>) {
    await sql
      .raw(
        `
alter table bike add column seen jsonb;
grant update (seen) on bike to ocho_app;
alter table job add column drivetrain text;
grant update (drivetrain) on job to ocho_app;
create index jobs_of_drivetrain on job (shop, drivetrain) where drivetrain is not null;
-- its owner is held by the walls too: they are let down for one sentence
alter table job no force row level security;
alter table event no force row level security;
update job j set drivetrain = (
  select e.body->'parts'->'shifter'->>'standard' from event e
  where e.shop = j.shop and e.job = j.id and e.body->>'kind' in ('arrived', 'parts') and e.body->'parts' <> 'null'::jsonb
  order by e.seq desc limit 1);
alter table job force row level security;
alter table event force row level security;
`,
      )
      .execute(db)
  },
}
