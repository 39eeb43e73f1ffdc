import { randomUUID } from 'node:crypto'
import { EventEmitter } from 'node:events'
import pg from 'pg'
import { sql } from 'kysely'
import { z } from 'zod'
import { db } from '../db/shared'

/**
 * The line between the server processes of one database (PostgreSQL's LISTEN and NOTIFY): each says what changed, after
 * it was committed, and hears what the others say. Only hints go over it, so that one that is lost costs a look and
 * never a tap.
 */
const CHANNEL = 'ocho_news'
/** Said together: a burst of taps on a job is one hint. */
const COALESCE_MS = 15
/** PostgreSQL takes 8,000 bytes a notification. */
const MOST_BYTES = 7_000
/** It listens to itself now and then: a line that looks open and says nothing is cut and opened anew. */
const TRY_EVERY_MS = 20_000
const HEARD_WITHIN_MS = 5_000
const AGAIN_MS = [250, 500, 1_000, 2_000, 5_000]

/** What is said: that a job has news (of which page), that a session ended, that it changed, that any may have. */
const Said = z.union([
  z.tuple([z.literal('job'), z.string(), z.int(), z.string().nullable()]),
  z.tuple([z.literal('ended'), z.string()]),
  z.tuple([z.literal('changed'), z.string()]),
  z.tuple([z.literal('all')]),
])
export type Said = z.infer<typeof Said>
const Message = z.object({ from: z.string(), said: Said.array() })

const ME = randomUUID()
const heardHere = new EventEmitter()
heardHere.setMaxListeners(0)
let waiting: Said[] = []
let timer: NodeJS.Timeout | undefined

/** Told at once in this process, and to the others a moment later. */
export function tell(said: Said): void {
  heardHere.emit('said', said)
  open()
  if (!waiting.some(w => String(w) === String(said))) waiting.push(said)
  timer ??= setTimeout(() => void send(), COALESCE_MS)
}

async function send(): Promise<void> {
  timer = undefined
  const batch = waiting
  waiting = []
  for (let from = 0; from < batch.length;) {
    let to = from + 1
    while (to < batch.length && JSON.stringify(batch.slice(from, to + 1)).length < MOST_BYTES) to++
    await notify(batch.slice(from, to))
    from = to
  }
}

const notify = (said: Said[]): Promise<unknown> =>
  sql`select pg_notify(${CHANNEL}, ${JSON.stringify({ from: ME, said })})`
    .execute(db())
    .catch((error: Error) => console.error(`others were not told: ${error.message}`))

/** Hears what any process says, this one too. */
export function onSaid(heard: (said: Said) => void): () => void {
  open()
  heardHere.on('said', heard)
  return () => {
    heardHere.off('said', heard)
  }
}

let listening = false
/** Does it hear the others at this moment? Where it does not, nothing may be kept that they could change. */
export function hearsOthers(): boolean {
  open()
  return listening
}

let opened = false
let client: pg.Client | undefined
let closed = false

/** Opens the line at first use; a connection of its own, since a pooler hands connections from one to another. */
function open(): void {
  if (opened || closed) return
  opened = true
  void keepListening()
}

async function keepListening(): Promise<void> {
  for (let tries = 0; !closed;) {
    const heard = await listen().catch((error: Error) => {
      if (!closed) console.error(`not listening to other servers: ${error.message}`)
      return false
    })
    tries = heard ? 0 : tries + 1
    listening = false
    if (!closed)
      await new Promise(resolve => setTimeout(resolve, AGAIN_MS[Math.min(tries, AGAIN_MS.length - 1)]).unref())
  }
}

/**
 * Listens until the line breaks. @returns whether anything was heard on it @throws when it could not be opened, or is
 * deaf
 */
async function listen(): Promise<boolean> {
  const connectionString = process.env.OCHO_LISTEN_URL || process.env.OCHO_DATABASE_URL
  const line = new pg.Client({ connectionString, connectionTimeoutMillis: 5_000 })
  client = line
  let end: (error?: Error) => void = () => undefined
  const over = new Promise<Error | undefined>(resolve => {
    end = resolve
  })
  line.on('error', end)
  line.on('end', () => end())
  let ownHeard = 0
  line.on('notification', ({ payload }) => {
    const read = Message.safeParse(parsed(payload ?? ''))
    if (!read.success) return
    if (read.data.from === ME) return void (ownHeard = Date.now())
    for (const said of read.data.said) heardHere.emit('said', said)
  })
  let beat: NodeJS.Timeout | undefined
  try {
    await line.connect()
    await line.query('listen ocho_news')
    const hearsItself = async () => {
      const asked = Date.now()
      await notify([])
      while (ownHeard < asked && Date.now() - asked < HEARD_WITHIN_MS) await new Promise(r => setTimeout(r, 20).unref())
      return ownHeard >= asked
    }
    if (!(await hearsItself()))
      throw new Error('what is said does not arrive. Behind a pooler, set OCHO_LISTEN_URL to the database itself')
    listening = true
    // whatever was said before is unknown: all look again
    heardHere.emit('said', ['all'])
    beat = setInterval(() => {
      void hearsItself().then(heard => {
        if (!heard) end(new Error('what is said no longer arrives'))
      })
    }, TRY_EVERY_MS).unref()
    const error = await over
    if (error && !closed) console.error(`the line to other servers broke: ${error.message}`)
    return true
  } finally {
    clearInterval(beat)
    listening = false
    await line.end().catch(() => undefined)
  }
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return null
  }
}

export async function closeLine(): Promise<void> {
  closed = true
  clearTimeout(timer)
  await client?.end().catch(() => undefined)
}
