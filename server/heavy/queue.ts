import { existsSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { MessageChannel, type MessagePort } from 'node:worker_threads'
import { Piscina } from 'piscina'
import type { Planned } from '#core/exchange/plan'
import type { Tell } from '#core/http/progress'
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
async function done(heavy: Heavy, hands: readonly MessagePort[] = []): Promise<Done> {
  const threads = poolNow()
  if (!threads) return work(heavy)
  try {
    return await threads.run(heavy, { transferList: [...hands] })
  } catch (error) {
    if (/queue is at limit/i.test((error as Error).message))
      throw new TooMuchAtOnce('Much is asked at once: try again in half a minute', { cause: error })
    throw error
  }
}

/** A PDF. @throws TooMuchAtOnce */
export const pdfOf = async (drawing: Extract<Heavy, { what: 'sheet' | 'tag' }>): Promise<Buffer> =>
  Buffer.from((await done(drawing)) as Uint8Array)

/** What a file would change; told as it is read. @throws TooMuchAtOnce */
export async function planOf(
  file: Omit<Extract<Heavy, { what: 'plan' }>, 'what' | 'told'>,
  tell: Tell,
): Promise<Planned> {
  const { port1: hears, port2: told } = new MessageChannel()
  hears.on('message', tell)
  try {
    return (await done({ what: 'plan', ...file, told }, [told])) as Planned
  } finally {
    hears.close()
  }
}

export const closeHeavy = (): Promise<void> => pool?.destroy() ?? Promise.resolve()
