import { connect, type Db } from './connect'

let shared: Db | undefined

/** The server's one pool, opened on first use. @throws Error when OCHO_DATABASE_URL is missing */
export function db(): Db {
  const url = process.env.OCHO_DATABASE_URL
  if (!url) throw new Error('OCHO_DATABASE_URL is not set: start Ocho with ./ocho demo or ./ocho start')
  return (shared ??= connect(url))
}

export async function closeDb(): Promise<void> {
  await shared?.destroy()
  shared = undefined
}
