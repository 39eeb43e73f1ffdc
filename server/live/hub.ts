import { EventEmitter } from 'node:events'

/**
 * Tells open benches that a job has news. One server serves a shop's tablets, so this stays in its memory; the news is
 * only a hint, each tablet then asks for what it has not seen by `seq`.
 */
const hub = new EventEmitter()
hub.setMaxListeners(0)

const keyOf = (shop: string, number: number): string => `${shop} ${number}`

/** Says that a job has news; the session it came from knows already. */
export const tellJob = (shop: string, number: number, from: string): void => {
  hub.emit(keyOf(shop, number), from)
}
export const endSession = (session: string): void => {
  hub.emit(`ended ${session}`)
}

/** Listens for news of a job that others made, until the returned function is called. */
export function onNews(shop: string, number: number, session: string, heard: () => void): () => void {
  const others = (from: string) => {
    if (from !== session) heard()
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
