import type { JobView } from '#core/http/job'
import { expectedMinutes } from '#core/job/minutes'
import { FrameKind } from '#core/standards/frames'
import { ownFigures } from '#core/standards/inForce'
import type { ShopTx } from './connect'
import { jobByNumber, notesOf } from './jobs'
import { editsOf } from './details'
import { learntHere } from './habits'
import { tookHere } from './minutes'
import { lastSheet } from './sheets'
import { settledOf } from './settling'
import { shopValues } from './standards'

/** One job as its pages need it, or null. */
export async function jobView(tx: ShopTx, shop: string, number: number): Promise<JobView | null> {
  const job = await jobByNumber(tx, shop, number)
  if (!job) return null
  const everyone = await tx.selectFrom('person').select(['id', 'name']).where('shop', '=', shop).execute()
  const notes = await notesOf(tx, shop, job.id)
  return {
    number: job.number,
    tag: job.tag,
    complaint: job.complaint,
    promisedAt: job.promised_at.toISOString(),
    createdAt: job.created_at.toISOString(),
    closedAt: job.closed_at?.toISOString() ?? null,
    customer: { name: job.customer_name, contact: job.contact },
    bike: {
      id: job.bike_id,
      name: job.bike_name,
      frameNumber: job.frame_number,
      frameKind: FrameKind.nullable().catch(null).parse(job.frame_kind),
    },
    notes: notes.map(n => ({ id: n.id, text: n.text, by: n.by, at: n.created_at.toISOString() })),
    known: job.known_job ? await lastSheet(tx, shop, { job: job.known_job }) : null,
    sheet: job.closed_at ? await lastSheet(tx, shop, { job: job.id }) : null,
    people: Object.fromEntries(everyone.map(p => [p.id, p.name])),
    own: ownFigures(await shopValues(tx, shop)),
    settled: await settledOf(tx, shop),
    learnt: await learntHere(tx, shop, { bike: job.bike_id, known: job.known_job }),
    takes: expectedMinutes(job.complaint, await tookHere(tx, shop)),
    call: job.call,
    edits: await editsOf(tx, shop, job.id),
  }
}
