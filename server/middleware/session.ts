import { defineEventHandler, getRequestURL, setResponseHeader } from 'h3'
import { requireSession } from '../auth/actor'

/** Routes that answer before anyone is signed in. Everything else under /api needs a session: denied unless listed. */
const OPEN = new Set(['/api/health', '/api/sign-in', '/api/first-run', '/api/join'])

/** A calendar signs in nowhere: its link's token is all it shows. */
const CALENDAR = '/api/calendar/'

export default defineEventHandler(async event => {
  const { pathname } = getRequestURL(event)
  if (!pathname.startsWith('/api/')) return
  setResponseHeader(event, 'cache-control', 'no-store')
  if (OPEN.has(pathname) || pathname.startsWith(CALENDAR)) return
  await requireSession(event)
})
