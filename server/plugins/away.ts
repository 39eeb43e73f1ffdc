import type { H3Error } from 'h3'
import { awayWords } from '../db/away'

/** A database that does not answer is no fault of what was asked: 503, which a page takes for being offline. */
export default defineNitroPlugin(nitro => {
  const { options } = nitro.h3App
  const before = options.onError
  options.onError = (error: H3Error, event) => {
    const words = awayWords(error.cause ?? error)
    if (words !== null) {
      console.error(`database away: ${(error.cause as Error | undefined)?.message ?? error.message}`)
      error.statusCode = 503
      error.message = words
      error.data = { message: words, issues: [] }
      error.unhandled = false
    }
    return before?.(error, event)
  }
})
