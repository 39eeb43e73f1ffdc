import type { H3Error } from 'h3'
import { answerOf } from '../auth/answerOf'

/** Errors that nobody threw on purpose are answered by what they mean, where that is known. */
export default defineNitroPlugin(nitro => {
  const { options } = nitro.h3App
  const before = options.onError
  options.onError = (error: H3Error, event) => {
    // whoever asked is gone: nobody is to be told, and nothing is wrong here
    if ((error.cause as Error | undefined)?.message === 'aborted') {
      error.statusCode = 400
      error.unhandled = false
    }
    const answer = answerOf(error.cause ?? error, event.path)
    if (answer) {
      error.statusCode = answer.status
      error.message = answer.message
      error.data = { message: answer.message, issues: [] }
      error.unhandled = false
    }
    return before?.(error, event)
  }
})
