import { readdirSync } from 'node:fs'
import { join } from 'node:path'
import { ROOT } from '../../ops/server'

export type Route = { file: string; method: string; path: string }
/** Values that stand in a route's brackets. */
export type Ids = { number: number | string; id: string; tag: string }

/** Every route file of the server, so that a new one is attacked without being listed. */
export function routesWith({ number, id, tag }: Ids): Route[] {
  const api = join(ROOT, 'server', 'api')
  return readdirSync(api, { recursive: true, encoding: 'utf8' })
    .filter(f => f.endsWith('.ts'))
    .map(file => {
      const [, path, method] = /^(.*)\.(get|post|delete)\.ts$/.exec(file)!
      const filled = path!
        .replace(/\/?index$/, '')
        .replace('[number]', String(number))
        .replace('[tag]', tag)
        .replace('[id]', id)
        .replace('[standard]', 'r14-10')
        .replace('[token]', 'no-such-token-of-anybody.ics')
        .replace('[figure]', 'barrel')
      return { file, method: method!.toUpperCase(), path: `/api/${filled}` }
    })
    .sort((a, b) => a.file.localeCompare(b.file))
}

/** Answer before anyone is signed in. */
export const OPEN = new Set([
  'health.get.ts',
  'sign-in.get.ts',
  'sign-in.post.ts',
  'first-run.post.ts',
  'join.post.ts',
  'calendar/[token].get.ts',
])
/** End the session that asks, or never end by themselves. */
export const APART = new Set(['sign-out.post.ts', 'jobs/[number]/live.get.ts'])
/** For owners: written down here a second time, apart from the routes. */
export const OWNERS = new Set([
  'customers/[id]/erase.post.ts',
  'customers/[id]/export.get.ts',
  'session/confirm.get.ts',
  'session/confirm.post.ts',
  'shop/audit.get.ts',
  'shop/devices.get.ts',
  'shop/devices/[id].delete.ts',
  'shop/joins/[id].get.ts',
  'shop/joins/index.post.ts',
  'shop/nights.get.ts',
  'shop/nights.post.ts',
  'shop/people.post.ts',
  'shop/people/[id]/change.post.ts',
  'shop/people/[id]/secrets.post.ts',
  'shop/reach.get.ts',
  'shop/reach.post.ts',
  'standards/export.get.ts',
  'standards/import.post.ts',
  'standards/taken-in/[id]/back.post.ts',
  'standards/taken-in/index.get.ts',
])
/** For mechanics and owners. */
export const MECHANICS = new Set([
  'cables/templates/[id].delete.ts',
  'cables/templates/index.post.ts',
  'calendars/[id].delete.ts',
  'calendars/index.post.ts',
  'recalls/desk.post.ts',
  'standards/values.post.ts',
])
