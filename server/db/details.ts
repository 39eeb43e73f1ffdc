import { EventId, PersonId } from '#core/chapter/ids'
import type { Details, EditView } from '#core/http/job'
import { DETAILS, type Detail } from '#core/job/events'
import { EVENT_VERSION } from '#core/ledger/events'
import { inShop, type Db, type ShopTx } from './connect'
import { newId } from './ids'
import { CannotTakeIn, jobByNumber, tagFree } from './jobs'
import { append, lockOpenJob, type Signed } from './ledger'

/**
 * Puts right what was written of a job at the door: its rows follow, what stood there before is kept, and the ledger
 * says which was changed. Nothing is written where nothing differs. All or nothing; asked twice it is done once.
 * @throws NoSuchJob, JobClosed, CannotTakeIn when the tag hangs on another bike
 */
export function changeDetails(
  db: Db,
  shop: string,
  number: number,
  person: string,
  session: string | null,
  order: Details,
  at = new Date(),
): Promise<Detail[]> {
  return inShop(db, shop, async tx => {
    const id = await lockOpenJob(tx, shop, number)
    const job = (await jobByNumber(tx, shop, number))!
    const was: Record<Detail, string> = {
      customer: job.customer_name,
      contact: job.contact,
      bike: job.bike_name,
      frameNumber: job.frame_number,
      complaint: job.complaint,
      promisedAt: job.promised_at.toISOString(),
      tag: job.tag,
    }
    const to = (field: Detail) => {
      const value = order[field]
      return value !== undefined && field === 'promisedAt' ? new Date(value).toISOString() : value
    }
    const fields = DETAILS.filter(f => to(f) !== undefined && to(f) !== was[f])
    if (!fields.length) return []
    if (fields.includes('tag')) await tagFree(tx, shop, order.tag!, id)
    if (!(await tellEdited(tx, { shop, number, person, session }, order, fields, at))) return fields
    for (const field of fields)
      await tx.insertInto('job_edit').values({ shop, id: newId(), job: id, field, was: was[field], person }).execute()
    await follow(tx, shop, job, order)
    return fields
  }).catch((error: { code?: string; constraint?: string }) => {
    if (error.code === '23505' && error.constraint === 'job_open_tag')
      throw new CannotTakeIn('tag', `Tag ${order.tag} was just taken: use another`)
    throw error
  })
}

/** Whose hand changes what is written of a job. */
type Writing = { shop: string; number: number; person: string; session: string | null }

/**
 * Lets the ledger say which of what was written is put right. False when this request was told before.
 * @throws CannotTakeIn when its id was used for something else
 */
export async function tellEdited(
  tx: ShopTx,
  { shop, number, person, session }: Writing,
  order: { id: string; basedOn: number },
  fields: Detail[],
  at: Date,
): Promise<boolean> {
  const entry: Signed = {
    id: EventId.parse(order.id),
    v: EVENT_VERSION,
    at: at.toISOString(),
    basedOn: order.basedOn,
    by: PersonId.parse(person),
    event: { kind: 'edited', fields },
    verified: true,
    signedBy: null,
  }
  const [told] = await append(tx, shop, number, session, [entry], true)
  if (told.outcome !== 'stored' && told.outcome !== 'held')
    throw new CannotTakeIn('id', 'That request was used before: ask once more')
  return told.outcome === 'stored'
}

type Row = NonNullable<Awaited<ReturnType<typeof jobByNumber>>>
async function follow(tx: ShopTx, shop: string, job: Row, d: Details): Promise<void> {
  const ofJob = {
    ...(d.complaint === undefined ? {} : { complaint: d.complaint }),
    ...(d.promisedAt === undefined ? {} : { promised_at: d.promisedAt }),
    ...(d.tag === undefined ? {} : { tag: d.tag }),
  }
  const ofBike = {
    ...(d.bike === undefined ? {} : { name: d.bike }),
    ...(d.frameNumber === undefined ? {} : { frame_number: d.frameNumber }),
  }
  const ofCustomer = {
    ...(d.customer === undefined ? {} : { name: d.customer }),
    ...(d.contact === undefined ? {} : { contact: d.contact }),
  }
  if (Object.keys(ofJob).length)
    await tx.updateTable('job').set(ofJob).where('shop', '=', shop).where('id', '=', job.id).execute()
  if (Object.keys(ofBike).length)
    await tx.updateTable('bike').set(ofBike).where('shop', '=', shop).where('id', '=', job.bike_id).execute()
  if (Object.keys(ofCustomer).length)
    await tx
      .updateTable('customer')
      .set(ofCustomer)
      .where('shop', '=', shop)
      .where('id', '=', job.customer_id)
      .execute()
}

/** What stood there before, the latest first. */
export async function editsOf(tx: ShopTx, shop: string, job: string): Promise<EditView[]> {
  const rows = await tx
    .selectFrom('job_edit')
    .innerJoin('person', j => j.onRef('person.shop', '=', 'job_edit.shop').onRef('person.id', '=', 'job_edit.person'))
    .select(['job_edit.field', 'job_edit.was', 'person.name as by', 'job_edit.made_at'])
    .where('job_edit.shop', '=', shop)
    .where('job_edit.job', '=', job)
    .orderBy('job_edit.made_at', 'desc')
    .limit(200)
    .execute()
  return rows.flatMap(r => {
    const field = DETAILS.find(d => d === r.field)
    return field ? [{ field, was: r.was, by: r.by, at: r.made_at.toISOString() }] : []
  })
}
