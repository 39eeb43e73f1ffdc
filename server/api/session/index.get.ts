import { PersonId } from '#core/chapter/ids'
import { defineEventHandler } from 'h3'
import type { SessionView } from '#core/http/session'
import { isFresh, requireSession } from '../../auth/actor'
import { inShop } from '../../db/connect'
import { people, readSchools, shopRow } from '../../db/people'
import { sensesOf } from '../../db/senses'
import { db } from '../../db/shared'

export default defineEventHandler(async (event): Promise<SessionView> => {
  const actor = await requireSession(event)
  return inShop(db(), actor.shop, async tx => {
    const { name, code, zone, demo, schools } = await shopRow(tx, actor.shop)
    const all = await people(tx, actor.shop)
    return {
      session: actor.session,
      shop: { name, code, zone, demo },
      schools: { shop: readSchools(schools), person: readSchools(all.find(p => p.id === actor.person?.id)?.schools) },
      senses: actor.person && (await sensesOf(tx, actor.shop, actor.person.id)),
      person: actor.person && { ...actor.person, id: PersonId.parse(actor.person.id) },
      people: all.map(p => ({
        id: PersonId.parse(p.id),
        name: p.name,
        role: p.role,
        fresh: isFresh(actor.unlocked.get(p.id)),
      })),
    }
  })
})
