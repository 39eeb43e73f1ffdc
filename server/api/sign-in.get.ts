import { defineEventHandler } from 'h3'
import { DoorView } from '#core/http/people'
import { firstRunOpen } from '../auth/firstRun'
import { shopOfCode } from '../db/people'
import { db } from '../db/shared'

/**
 * What the launcher says of the demo, whose secrets are published; nothing for a real shop. @throws Error when it is
 * not what it should be
 */
function demoSignIn(): DoorView['demo'] {
  const told = process.env.OCHO_DEMO_SIGN_IN
  return told ? DoorView.shape.demo.parse(JSON.parse(told)) : null
}

/** What the door shows before anyone is signed in: the demo's secrets only where the demo shop is loaded. */
export default defineEventHandler(async (): Promise<DoorView> => {
  const demo = demoSignIn()
  const loaded = demo && (await shopOfCode(db(), demo.shop))
  return { firstRun: await firstRunOpen(), demo: loaded?.demo ? demo : null }
})
