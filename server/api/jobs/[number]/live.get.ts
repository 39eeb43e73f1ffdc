import { randomUUID } from 'node:crypto'
import { createEventStream, defineEventHandler } from 'h3'
import { JobNumber } from '#core/http/job'
import { requireSession } from '../../../auth/actor'
import { param } from '../../../auth/refuse'
import { onNews, onSessionEnd } from '../../../live/hub'

/** A quiet line from now and then keeps the connection and tells a dead one apart. */
const BEAT_MS = 20_000

/** Hints that a job has news; the tablet then asks for what it has not seen. */
export default defineEventHandler(async event => {
  const { shop, session } = await requireSession(event)
  const number = param(event, 'number', JobNumber)
  const stream = createEventStream(event)
  // an id that no line had before: a tablet that slept and opens another takes its first word for news too
  const push = (data: string) =>
    stream.push(data === 'news' ? { id: randomUUID(), data } : { data }).catch(() => undefined)
  const stop = onNews(shop, number, event, () => {
    push('news')
  })
  const ended = onSessionEnd(session, () => {
    stream.close()
  })
  const beat = setInterval(() => push('beat'), BEAT_MS)
  stream.onClosed(async () => {
    clearInterval(beat)
    stop()
    ended()
    await stream.close()
  })
  push('news')
  return stream.send()
})
