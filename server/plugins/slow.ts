import type { Server } from 'node:http'

/** As long as a page waits for its own file to be sent. */
const BODY_MS = 60_000
const HEADERS_MS = 10_000

/**
 * A line is kept open so long after an answer: Node's own five seconds end it just as the next tap is sent on it, every
 * now and then, and that tap must be sent again.
 */
const KEPT_MS = 60_000

/** Who sends a request a letter at a time is let go: headers and bodies have an end (Node looks every half minute). */
export default defineNitroPlugin(nitro => {
  nitro.hooks.hookOnce('request', event => {
    const { server } = event.node.req.socket as unknown as { server?: Server }
    if (!server) return
    server.headersTimeout = HEADERS_MS
    server.requestTimeout = BODY_MS
    server.keepAliveTimeout = KEPT_MS
  })
})
