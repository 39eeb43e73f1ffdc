import type { H3Error } from 'h3'
import { awayWords } from '../db/away'

/** A database that does not answer is no fault of what was asked: 503, which a page takes for being offline. */
export default defineNitroPlugin(nitro => {
  const { options } = nitro.h3App
  const before = options.onError
  options.onError = (error: H3Error, event) => {
    // whoever asked is gone: nobody is to be told, and nothing is wrong here
    if ((error.cause as Error | undefined)?.message === 'aborted') {
      error.statusCode = 400
      error.unhandled = false
    }
    // the last net: what no field refused, and no column can hold. Whatever was sent with it is asked again without it
    if (/^22/.test((error.cause as { code?: string } | undefined)?.code ?? '')) {
      console.error(`past every field: ${event.path}: ${(error.cause as Error).message}`)
      error.statusCode = 400
      error.message = 'There is a figure or a character in it that cannot be kept: put it right and try again'
      error.data = { message: error.message, issues: [] }
      error.unhandled = false
    }
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
