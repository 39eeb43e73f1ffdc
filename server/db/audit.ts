import type { AuditView, AuditWhat } from '#core/shop/audit'
import { readAudit } from '#core/shop/audit'
import type { ShopTx } from './connect'
import { newId } from './ids'

/** Who did it, and on which device. */
type Hand = { shop: string; session: string | null; person: string | null }

/** Writes down what an owner should be able to look up; in the same transaction as what was done. */
export async function audit(tx: ShopTx, { shop, session, person }: Hand, what: AuditWhat, detail = ''): Promise<void> {
  await tx.insertInto('audit').values({ shop, id: newId(), what, detail, person, session }).execute()
}

/** The last of a shop's trail, the newest first. */
export async function auditTrail(tx: ShopTx, shop: string, most = 100): Promise<AuditView[]> {
  const rows = await tx
    .selectFrom('audit')
    .leftJoin('person', j => j.onRef('person.shop', '=', 'audit.shop').onRef('person.id', '=', 'audit.person'))
    .leftJoin('session', j => j.onRef('session.shop', '=', 'audit.shop').onRef('session.id', '=', 'audit.session'))
    .select(['audit.id', 'audit.what', 'audit.detail', 'audit.at', 'person.name as person', 'session.device'])
    .where('audit.shop', '=', shop)
    .orderBy('audit.n', 'desc')
    .limit(most)
    .execute()
  return rows.map(r => readAudit({ ...r, at: r.at.toISOString() }))
}
