import { getQuery, getRequestHeader, type H3Event } from 'h3'
import { PAGE_HEADER, PageId } from '#core/http/page'
import { onSaid, tell } from './line'

/** Says that a job has news, to whichever process its tablets are on; the page it came from knows already. */
export const tellJob = (shop: string, number: number, event: H3Event): void =>
  tell(['job', shop, number, PageId.safeParse(getRequestHeader(event, PAGE_HEADER)).data ?? null])

export const endSession = (session: string): void => tell(['ended', session])

/** Listens for news of a job that other pages made, until the returned function is called. */
export function onNews(shop: string, number: number, event: H3Event, heard: () => void): () => void {
  const page = PageId.safeParse(getQuery(event).page).data
  return onSaid(said => {
    // after a broken line nobody knows what was missed: a look tells
    if (said[0] === 'all') heard()
    if (said[0] === 'job' && said[1] === shop && said[2] === number && (said[3] === null || said[3] !== page)) heard()
  })
}

export const onSessionEnd = (session: string, ended: () => void): (() => void) =>
  onSaid(said => {
    if (said[0] === 'ended' && said[1] === session) ended()
  })
