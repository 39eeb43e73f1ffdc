import { sql, type Kysely, type Migration } from 'kysely'
import { wallOf } from './walls'

/** Photographs of a job's cables as they were found. */
export const photos: Migration = {
  async up(db: Kysely<unknown>) {
    await sql
      .raw(
        `
create table photo (
  shop uuid not null references shop, id uuid not null, job uuid not null, run text not null, mime text not null, bytes bytea not null,
  person uuid not null, made_at timestamptz not null default now(), gone_at timestamptz, primary key (shop, id),
  foreign key (shop, person) references person (shop, id), foreign key (shop, job) references job (shop, id));
create index photo_of_job on photo (shop, job, made_at) where gone_at is null;
`,
      )
      .execute(db)
    await sql.raw(wallOf('photo')).execute(db)
    await sql.raw('grant update (gone_at) on photo to ocho_app;').execute(db)
  },
}
