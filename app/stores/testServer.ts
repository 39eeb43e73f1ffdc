import { createPinia, setActivePinia } from 'pinia'
import { PersonId } from '#core/chapter/ids'
import { JobView } from '#core/http/job'
import type { SessionView } from '#core/http/session'
import { kept } from './kept'
import { Entry, type EntryAnswer, type Stored } from '#core/ledger/events'

export const ME = PersonId.parse('00000000-0000-4000-8000-000000000001')
/** The shop of these tests, and another that signs in on the same tablet. */
export const [SHOP, OTHER_SHOP] = ['shearwater', 'petrel']
const AT = '2026-11-25T10:00:00.000Z'

export const sessionOf = (person: string | null = ME, shop = SHOP): SessionView => ({
  session: '00000000-0000-4000-8000-00000000000a',
  shop: { name: 'Shearwater', code: shop, zone: 'UTC', demo: false },
  schools: { shop: {}, person: {} },
  senses: null,
  person: person ? { id: PersonId.parse(person), name: 'Ishbel', role: 'mechanic' } : null,
  people: [{ id: ME, name: 'Ishbel', role: 'mechanic', fresh: true }],
})

const jobOf = (): JobView =>
  JobView.parse({
    number: 4,
    tag: 'A1',
    complaint: 'slow',
    promisedAt: AT,
    createdAt: AT,
    closedAt: null,
    customer: { name: 'Hob', contact: '' },
    bike: { id: '00000000-0000-4000-8000-00000000000b', name: 'Marram', frameNumber: '' },
    notes: [],
    known: null,
    sheet: null,
    people: {},
  })

type Sent = { job: number; entries: Entry[]; sign?: { person: string; pin: string } }

/**
 * For tests: a server of one job's log behind `fetch`, which can be away, refuse, or be slow; and the stores as on a
 * page that was just loaded. What the browser keeps lives on through `reload`.
 */
export function testServer() {
  const server = {
    /** 'gone' drops the answer after the work was done, as a line that breaks does. */
    line: 'up' as 'up' | 'down' | 'gone',
    status: 200,
    refusal: { message: 'No', issues: [] as { field: string; message: string }[] },
    /** Kinds of entries that are refused, with what is said. */
    refuses: new Map<string, string>(),
    log: [] as Stored[],
    sent: [] as Sent[],
    /** Looks at the job, and what each waits for before it is answered. */
    looks: 0,
    beforeLook: async (): Promise<void> => undefined,
    /** Called before a batch is answered. */
    before: async (): Promise<void> => undefined,
    session: sessionOf() as SessionView | null,
    job: jobOf(),
    /** Some of the log was written by a later version. */
    newer: false,
  }
  const json = (value: unknown, status = 200) =>
    new Response(JSON.stringify(value), { status, headers: { 'content-type': 'application/json' } })
  const refused = (status: number) => json({ data: server.refusal }, status)

  function append(job: number, raw: Sent): { answers: EntryAnswer[] } {
    const entries = raw.entries.map(e => Entry.parse(e))
    server.sent.push({ job, entries, ...(raw.sign ? { sign: raw.sign } : {}) })
    const answers = entries.map((entry): EntryAnswer => {
      const message = server.refuses.get(entry.event.kind)
      if (message) return { is: 'refused', id: entry.id, field: 'event', message }
      const was = server.log.find(e => e.id === entry.id)
      if (was) return { is: 'held', id: entry.id, seq: was.seq }
      const stored: Stored = { ...entry, seq: server.log.length + 1, receivedAt: AT, verified: true, signedBy: null }
      server.log.push(stored)
      return { is: 'stored', stored }
    })
    return { answers }
  }
  async function answer(url: string, init: RequestInit): Promise<Response> {
    if (server.line === 'down') throw new TypeError('failed to fetch')
    if (server.status !== 200) return refused(server.status)
    const events = url.match(/^\/api\/jobs\/(\d+)\/events(?:\?after=(\d+))?$/)
    if (events && init.method === 'POST') {
      await server.before()
      const answers = append(Number(events[1]), JSON.parse(init.body as string) as Sent)
      if ((server.line as string) === 'gone') throw new TypeError('the line broke')
      return json(answers)
    }
    if (events) return json({ entries: server.log.filter(e => e.seq > Number(events[2])), newer: server.newer })
    if (/^\/api\/jobs\/\d+$/.test(url)) {
      server.looks++
      // as it stood when it was looked at, however long that takes
      const { job } = server
      await server.beforeLook()
      return json(job)
    }
    if (url === '/api/session') return server.session ? json(server.session) : refused(401)
    if (url === '/api/session/person' || url === '/api/sign-out') return json({ ok: true })
    return refused(404)
  }
  globalThis.fetch = ((url: string, init: RequestInit = {}) => answer(url, init)) as typeof fetch
  return server
}

/** Nothing is kept in this browser, of any shop. */
export async function emptied(): Promise<void> {
  await kept.wipe()
  for (const shop of [SHOP, OTHER_SHOP]) await kept.dropTaps((await kept.taps(shop)).map(t => t.entry.id))
}
export const tapsWaiting = async (shop = SHOP): Promise<number> => (await kept.taps(shop)).length

/** A page loaded anew: stores that know nothing yet. */
export function reload(): void {
  setActivePinia(createPinia())
}
