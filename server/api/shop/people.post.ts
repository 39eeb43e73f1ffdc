import { defineEventHandler } from 'h3'
import { NewPerson } from '#core/http/people'
import { handOf, requireOwner } from '../../auth/actor'
import { body, refuse } from '../../auth/refuse'
import { hashSecret } from '../../auth/secrets'
import { audit } from '../../db/audit'
import { inShop } from '../../db/connect'
import { addPerson } from '../../db/people'
import { db } from '../../db/shared'

/** An owner adds a person; with a password they may sign devices in. */
export default defineEventHandler(async (event): Promise<{ id: string }> => {
  const actor = await requireOwner(event)
  const { name, role, pin, password } = await body(event, NewPerson)
  const pinHash = await hashSecret(pin)
  const passwordHash = password ? await hashSecret(password) : null
  try {
    return {
      id: await inShop(db(), actor.shop, async tx => {
        const id = await addPerson(tx, actor.shop, { name, role, pinHash, passwordHash })
        await audit(tx, handOf(actor), 'personAdded', `${name}, ${role}`)
        return id
      }),
    }
  } catch (error) {
    if ((error as { code?: string }).code === '23505')
      throw refuse(409, `${name} works here already: use another name`, [
        { field: 'name', message: 'That name is taken' },
      ])
    throw error
  }
})
