import { defineEventHandler, getRequestHeader, setResponseHeader, setResponseStatus } from 'h3'
import { refuse } from '../auth/refuse'

const CHANGES = new Set(['POST', 'PUT', 'PATCH', 'DELETE'])
/**
 * The names this server goes by: its own machine's, and those it was started with. A page of another site whose name
 * was made to lead here (a name that is bound anew) is none of them.
 */
const NAMES = new Set(['127.0.0.1', 'localhost', '[::1]', ...(process.env.OCHO_NAMES?.split(',') ?? [])])

const OTHER_NAME = 'Ocho does not go by that name: open it by the address its terminal prints'

/**
 * A page of another site never reads or changes anything here: a browser says by which name it came, and whose page
 * asks.
 */
export default defineEventHandler(event => {
  const host = getRequestHeader(event, 'host')
  // what the server asks of itself while it draws a page comes by no name
  // no name at all: answered here, since what draws errors would stumble over it once more
  if (host !== undefined && !URL.canParse(`http://${host}`)) {
    setResponseStatus(event, 400)
    return OTHER_NAME
  }
  if (host !== undefined && !NAMES.has(new URL(`http://${host}`).hostname)) throw refuse(421, OTHER_NAME)
  // half a year (RFC 6797): from here on a browser opens this name over HTTPS alone, and takes no other certificate by
  // a click
  if (process.env.OCHO_HTTPS === '1') setResponseHeader(event, 'strict-transport-security', 'max-age=15552000')
  if (!CHANGES.has(event.method)) return
  const origin = getRequestHeader(event, 'origin')
  if (!origin) return
  const from = URL.canParse(origin) ? new URL(origin).host : null
  if (from === null || from !== host)
    throw refuse(403, 'This came from another site’s page: open Ocho by its own address')
})
