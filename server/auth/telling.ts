import { getRequestHeader, setResponseHeader, type H3Event } from 'h3'
import { PROGRESS_TYPE, type ProgressLine, type Tell } from '#core/http/progress'
import { answerOf } from './answerOf'

/** No more often than this is said how much is done. */
const EVERY_MS = 100

/**
 * Does work and tells how far it is, line by line, to who asked to be told; to anybody else it answers once. What is
 * refused after the first line is told in the last one, since the answer's status has gone out by then. The work ends
 * as it would have where nobody listens any more.
 */
export function telling<T>(event: H3Event, work: (tell: Tell) => Promise<T>): Promise<T> | ReadableStream<Uint8Array> {
  if (!getRequestHeader(event, 'accept')?.includes(PROGRESS_TYPE)) return work(() => {})
  setResponseHeader(event, 'content-type', PROGRESS_TYPE)
  const text = new TextEncoder()
  let listened = true
  return new ReadableStream<Uint8Array>({
    async start(to) {
      const say = (line: ProgressLine) => listened && to.enqueue(text.encode(`${JSON.stringify(line)}\n`))
      let last = -Infinity
      const tell: Tell = share => {
        if (performance.now() - last < EVERY_MS) return
        last = performance.now()
        say({ share: Math.min(1, Math.max(0, share)) })
      }
      tell(0)
      try {
        say({ done: await work(tell) })
      } catch (error) {
        say({ refused: refusalOf(error, event.path) })
      }
      if (listened) to.close()
    },
    cancel() {
      listened = false
    },
  })
}

/** What a plain answer would have said of it. */
function refusalOf(error: unknown, asked: string): { status: number; data: unknown } {
  const { statusCode, data = null } = error as { statusCode?: number; data?: unknown }
  if (statusCode !== undefined) return { status: statusCode, data }
  const answer = answerOf(error, asked)
  if (answer) return { status: answer.status, data: { message: answer.message, issues: [] } }
  console.error(error)
  return { status: 500, data: null }
}
