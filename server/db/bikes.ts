import type { BikeView } from '#core/http/records'
import { Sheet } from '#core/ledger/sheet'
import { FrameKind } from '#core/standards/frames'
import type { ShopTx } from './connect'
import { cableRenewed } from './habits'
import { recordsOfBike } from './recordViews'

/** A bike with its visits and everything recorded of it, or null. */
export async function bikeView(tx: ShopTx, shop: string, id: string): Promise<BikeView | null> {
  const bike = await tx
    .selectFrom('bike')
    .innerJoin('customer', j => j.onRef('customer.shop', '=', 'bike.shop').onRef('customer.id', '=', 'bike.customer'))
    .select([
      'bike.id',
      'bike.name',
      'bike.frame_number',
      'bike.frame_kind',
      'bike.merged_into',
      'customer.name as customer',
      'customer.id as customer_id',
      'customer.erased_at',
    ])
    .where('bike.shop', '=', shop)
    .where('bike.id', '=', id)
    .executeTakeFirst()
  if (!bike) return null
  if (bike.merged_into) return bikeView(tx, shop, bike.merged_into)
  const visits = await tx
    .selectFrom('job')
    .select(['number', 'tag', 'closed_at', 'created_at', 'complaint'])
    .where('shop', '=', shop)
    .where('bike', '=', id)
    .orderBy('created_at', 'desc')
    .limit(200)
    .execute()
  const sheets = await tx
    .selectFrom('sheet')
    .innerJoin('job', j => j.onRef('job.shop', '=', 'sheet.shop').onRef('job.id', '=', 'sheet.job'))
    .select(['job.number', 'sheet.closed_at', 'sheet.body'])
    .where('sheet.shop', '=', shop)
    .where('sheet.bike', '=', id)
    .orderBy('sheet.closed_at', 'desc')
    .limit(60)
    .execute()
  const read = sheets.map(s => ({ job: s.number, at: s.closed_at.toISOString(), sheet: Sheet.parse(s.body) }))
  const photos = await tx
    .selectFrom('photo')
    .innerJoin('job', j => j.onRef('job.shop', '=', 'photo.shop').onRef('job.id', '=', 'photo.job'))
    .select(['photo.id', 'photo.run', 'photo.made_at', 'job.number'])
    .where('photo.shop', '=', shop)
    .where('job.bike', '=', id)
    .where('photo.gone_at', 'is', null)
    .orderBy('photo.made_at', 'desc')
    .limit(24)
    .execute()
  const recall = await tx
    .selectFrom('recall')
    .innerJoin('job', j => j.onRef('job.shop', '=', 'recall.shop').onRef('job.id', '=', 'recall.job'))
    .select(['recall.due_on', 'job.number'])
    .where('recall.shop', '=', shop)
    .where('job.bike', '=', id)
    .where('recall.state', '=', 'due')
    .orderBy('recall.due_on')
    .executeTakeFirst()
  const [last] = read
  return {
    changed: read
      .map(r => ({ job: r.job, at: r.at, what: [...new Set(r.sheet.done.flatMap(f => f.used ?? []))] }))
      .filter(c => c.what.length > 0),
    photos: photos.map(p => ({ job: p.number, id: p.id, of: p.run, at: p.made_at.toISOString() })),
    recall: recall ? { dueOn: recall.due_on, job: recall.number } : null,
    last: last ? { job: last.job, right: last.sheet.right, settle: last.sheet.settle !== null, at: last.at } : null,
    sprockets: last?.sheet.parts?.cassette.teeth.length ?? null,
    cableRenewedAt: (await cableRenewed(tx, shop, id, new Date()))?.toISOString() ?? null,
    id: bike.id,
    name: bike.name,
    frameNumber: bike.frame_number,
    customer: { id: bike.customer_id, name: bike.customer, erased: bike.erased_at !== null },
    frame: FrameKind.nullable().catch(null).parse(bike.frame_kind),
    records: await recordsOfBike(tx, shop, id),
    visits: visits.map(v => ({
      number: v.number,
      tag: v.tag,
      closedAt: v.closed_at?.toISOString() ?? null,
      createdAt: v.created_at.toISOString(),
      complaint: v.complaint,
    })),
  }
}
