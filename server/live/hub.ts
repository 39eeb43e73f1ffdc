import { getQuery, getRequestHeader, type H3Event } from 'h3'
import { PAGE_HEADER, PageId } from '#core/http/page'
import { onSaid, tell } from './line'

type Heard = (from: string | null) => void
/** Who listens here, by what they listen to: a hint of one job is no work for those of all others. */
const listening = new Map<string, Set<Heard>>()
let subscribed = false

function listen(key: string, heard: Heard): () => void {
  if (!subscribed) {
    subscribed = true
    onSaid(said => {
      // after a broken line nobody knows what was missed: a look tells
      if (said[0] === 'all') for (const [of, all] of listening) if (of.startsWith('job ')) for (const h of all) h(null)
      if (said[0] === 'job') for (const h of listening.get(jobKey(said[1], said[2])) ?? []) h(said[3])
      if (said[0] === 'ended') for (const h of listening.get(`session ${said[1]}`) ?? []) h(null)
    })
  }
  const all = listening.get(key) ?? new Set()
  listening.set(key, all.add(heard))
  return () => {
    all.delete(heard)
    if (all.size === 0 && listening.get(key) === all) listening.delete(key)
  }
}

const jobKey = (shop: string, number: number): string => `job ${shop} ${number}`

/** Says that a job has news, to whichever process its tablets are on; the page it came from knows already. */
export const tellJob = (shop: string, number: number, event: H3Event): void =>
  tell(['job', shop, number, PageId.safeParse(getRequestHeader(event, PAGE_HEADER)).data ?? null])

export const endSession = (session: string): void => tell(['ended', session])

/** Listens for news of a job that other pages made, until the returned function is called. */
export function onNews(shop: string, number: number, event: H3Event, heard: () => void): () => void {
  const page = PageId.safeParse(getQuery(event).page).data
  return listen(jobKey(shop, number), from => {
    if (from === null || from !== page) heard()
  })
}

export const onSessionEnd = (session: string, ended: () => void): (() => void) => listen(`session ${session}`, ended)
