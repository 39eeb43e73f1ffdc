import { defineEventHandler, getRequestHeader } from 'h3'
import { refuse } from '../auth/refuse'

const CHANGES = new Set(['POST', 'PUT', 'PATCH', 'DELETE'])

/** A page of another site never changes anything here: a browser says whose page asks. */
export default defineEventHandler(event => {
  if (!CHANGES.has(event.method)) return
  const origin = getRequestHeader(event, 'origin')
  if (!origin) return
  const host = getRequestHeader(event, 'host')
  const from = URL.canParse(origin) ? new URL(origin).host : null
  if (from === null || from !== host)
    throw refuse(403, 'This came from another site’s page: open Ocho by its own address')
})
