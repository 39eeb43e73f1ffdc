import { defineEventHandler } from 'h3'
import type { DoorView } from '#core/http/session'
import { DEMO_PEOPLE, DEMO_SHOP } from '../../demo/people'
import { firstRunOpen } from '../auth/firstRun'
import { shopOfCode } from '../db/people'
import { db } from '../db/shared'

/** What the door shows before anyone is signed in: the demo's secrets only where the demo shop is loaded. */
export default defineEventHandler(async (): Promise<DoorView> => {
  const demo = await shopOfCode(db(), DEMO_SHOP.code)
  return {
    firstRun: firstRunOpen(),
    demo: demo?.demo ? { shop: DEMO_SHOP.code, people: DEMO_PEOPLE.map(p => ({ ...p })) } : null,
  }
})
