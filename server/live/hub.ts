import { EventEmitter } from 'node:events'

/**
 * Tells open benches that a job has news. One server serves a shop's tablets, so this stays in its memory; the news is
 * only a hint, each tablet then asks for what it has not seen by `seq`.
 */
const hub = new EventEmitter()
hub.setMaxListeners(0)

const keyOf = (shop: string, number: number): string => `${shop} ${number}`

export const tellJob = (shop: string, number: number): void => {
  hub.emit(keyOf(shop, number))
}
export const endSession = (session: string): void => {
  hub.emit(`ended ${session}`)
}

/** Listens for news of a job until the returned function is called. */
export function onNews(shop: string, number: number, heard: () => void): () => void {
  hub.on(keyOf(shop, number), heard)
  return () => {
    hub.off(keyOf(shop, number), heard)
  }
}

export function onSessionEnd(session: string, ended: () => void): () => void {
  hub.once(`ended ${session}`, ended)
  return () => {
    hub.off(`ended ${session}`, ended)
  }
}
