import { defineEventHandler } from 'h3'
import type { AuditView } from '#core/shop/audit'
import { requireOwnerToLook } from '../../auth/actor'
import { auditTrail } from '../../db/audit'
import { inShop } from '../../db/connect'
import { db } from '../../db/shared'

/** The last of what was done here that an owner should be able to look up. */
export default defineEventHandler(async (event): Promise<AuditView[]> => {
  const { shop } = await requireOwnerToLook(event)
  return inShop(db(), shop, tx => auditTrail(tx, shop))
})
