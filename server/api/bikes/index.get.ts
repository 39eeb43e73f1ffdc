import { defineEventHandler } from 'h3'
import { z } from 'zod'
import type { FoundBike } from '#core/http/door'
import { line } from '#core/http/words'
import { requireSession } from '../../auth/actor'
import { query } from '../../auth/refuse'
import { inShop } from '../../db/connect'
import { findBikes } from '../../db/floor'
import { db } from '../../db/shared'

const Search = z.object({ q: line('Search', 80) })

export default defineEventHandler(async (event): Promise<FoundBike[]> => {
  const { shop } = await requireSession(event)
  const { q } = query(event, Search)
  return inShop(db(), shop, tx => findBikes(tx, shop, q))
})
