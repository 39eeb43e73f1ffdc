import { EventEmitter } from 'node:events'
import { getQuery, getRequestHeader, type H3Event } from 'h3'
import { PAGE_HEADER, PageId } from '#core/http/page'

/**
 * Tells open benches that a job has news. One server serves a shop's tablets, so this stays in its memory; the news is
 * only a hint, each tablet then asks for what it has not seen by `seq`.
 */
const hub = new EventEmitter()
hub.setMaxListeners(0)

const keyOf = (shop: string, number: number): string => `${shop} ${number}`

/** Says that a job has news; the page it came from knows already. */
export const tellJob = (shop: string, number: number, event: H3Event): void => {
  hub.emit(keyOf(shop, number), PageId.safeParse(getRequestHeader(event, PAGE_HEADER)).data ?? null)
}
export const endSession = (session: string): void => {
  hub.emit(`ended ${session}`)
}

/** Listens for news of a job that other pages made, until the returned function is called. */
export function onNews(shop: string, number: number, event: H3Event, heard: () => void): () => void {
  const page = PageId.safeParse(getQuery(event).page).data
  const others = (from: string | null) => {
    if (from === null || from !== page) heard()
  }
  hub.on(keyOf(shop, number), others)
  return () => {
    hub.off(keyOf(shop, number), others)
  }
}

export function onSessionEnd(session: string, ended: () => void): () => void {
  hub.once(`ended ${session}`, ended)
  return () => {
    hub.off(`ended ${session}`, ended)
  }
}
