import { sql, type Kysely, type Migration } from 'kysely'
import { wallOf } from './walls'

/** What is written of a job can be put right, with what stood there before; and what a job waits for. */
export const details: Migration = {
  async up(db: Kysely<unknown>) {
    await sql
      .raw(
        `
create table job_edit (
  shop uuid not null references shop, id uuid not null, job uuid not null, field text not null, was text not null,
  person uuid not null, made_at timestamptz not null default now(), primary key (shop, id),
  foreign key (shop, person) references person (shop, id), foreign key (shop, job) references job (shop, id));
create index edits_of_job on job_edit (shop, job, made_at);
alter table job add column waits text;
grant update (complaint, promised_at, waits) on job to ocho_app;
`,
      )
      .execute(db)
    await sql.raw(wallOf('job_edit')).execute(db)
  },
}
