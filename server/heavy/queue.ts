import { existsSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { Piscina } from 'piscina'
import type { Planned } from '#core/exchange/plan'
import work, { type Heavy } from './worker'

/** So many wait for their turn at most: at half a second each, nobody waits for more. */
export const MOST_WAITING = 60
/** Too many wait already. */
export class TooMuchAtOnce extends Error {}

/**
 * The thread's own file, which the build puts beside the server; while developing there is none, and it is done here.
 */
const FILE = join(dirname(process.argv[1] ?? '.'), 'heavy-worker.mjs')
type Done = Uint8Array | Planned
let pool: Piscina<Heavy, Done> | null | undefined
const poolNow = () =>
  (pool ??= existsSync(FILE)
    ? new Piscina<Heavy, Done>({ filename: FILE, maxThreads: 1, maxQueue: MOST_WAITING, idleTimeout: 60_000 })
    : null)

/** Done beside the server's own work, one after the other. @throws TooMuchAtOnce */
async function done(heavy: Heavy): Promise<Done> {
  const threads = poolNow()
  if (!threads) return work(heavy)
  try {
    return await threads.run(heavy)
  } catch (error) {
    if (/queue is at limit/i.test((error as Error).message))
      throw new TooMuchAtOnce('Much is asked at once: try again in half a minute', { cause: error })
    throw error
  }
}

/** A PDF. @throws TooMuchAtOnce */
export const pdfOf = async (drawing: Extract<Heavy, { what: 'sheet' | 'tag' }>): Promise<Buffer> =>
  Buffer.from((await done(drawing)) as Uint8Array)

/** What a file would change. @throws TooMuchAtOnce */
export const planOf = async (file: Omit<Extract<Heavy, { what: 'plan' }>, 'what'>): Promise<Planned> =>
  (await done({ what: 'plan', ...file })) as Planned

export const closeHeavy = (): Promise<void> => pool?.destroy() ?? Promise.resolve()
