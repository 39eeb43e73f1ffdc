import type { BikeView } from '#core/http/records'
import { FrameKind } from '#core/records/frames'
import type { ShopTx } from './connect'
import { recordsOfBike } from './records'

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
  return {
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
