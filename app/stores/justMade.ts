import { Entry } from '#core/ledger/events'

/** A tap as it is made: of which job, and of which shop by its code. */
export type Made = { job: number; entry: Entry; shop: string }

const KEY = 'ocho-tap:'
/** Absent where pages are made, and in a browser that may keep nothing, which refuses even to be asked. */
function store(): Storage | undefined {
  try {
    return globalThis.localStorage as Storage | undefined
  } catch {
    return undefined
  }
}
const keys = () =>
  Array.from({ length: store()?.length ?? 0 }, (_, i) => store()!.key(i) ?? '').filter(key => key.startsWith(KEY))
const orderOf = (key: string) => Number(key.split(':')[1])

/**
 * Taps in the moment between being on screen and being in the database, which answers only later: a page that is
 * reloaded or closed in that moment would lose what it had shown as done. What is written here is written at once.
 */
export const justMade = {
  /** Writes a tap down before anything else happens. @returns takes it away again, once the database has it */
  put(made: Made): () => void {
    const order = Math.max(0, ...keys().map(orderOf)) + 1
    const key = `${KEY}${order}:${made.entry.id}`
    try {
      store()?.setItem(key, JSON.stringify(made))
    } catch {
      // full, or not allowed: the database alone must do
    }
    return () => store()?.removeItem(key)
  },
  /** What a page before this one did not bring into the database, in the order it was made. */
  left(): { made: Made; taken: () => void }[] {
    return keys()
      .sort((a, b) => orderOf(a) - orderOf(b))
      .flatMap(key => {
        const made = read(store()!.getItem(key))
        return made ? [{ made, taken: () => store()!.removeItem(key) }] : []
      })
  },
}

/** Null for what no tap of this version is: it is left where it is. */
function read(text: string | null): Made | null {
  try {
    const { job, entry, shop } = JSON.parse(text ?? '{}') as Record<keyof Made, unknown>
    const parsed = Entry.safeParse(entry)
    return parsed.success ? { job: Number(job), entry: parsed.data, shop: String(shop) } : null
  } catch {
    return null
  }
}
