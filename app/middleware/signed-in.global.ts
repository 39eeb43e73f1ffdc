import type { SessionView } from '#core/http/session'
import { useSession } from '~/stores/session'

const OPEN = new Set(['/sign-in', '/first-run', '/join'])

/** Nobody gets past the door without a session; the bench, offline, goes by what this device keeps. */
export default defineNuxtRouteMiddleware(async to => {
  if (OPEN.has(to.path)) return
  const session = useSession()
  if (import.meta.server) {
    try {
      session.now = await useRequestFetch()<SessionView>('/api/session')
    } catch {
      return navigateTo({ path: '/sign-in', query: { to: to.fullPath } })
    }
    return
  }
  if (session.now) void session.adopt(session.now)
  if (session.now && !to.path.startsWith('/jobs')) return
  if (session.now) {
    void session.load() // the bench opens at once; who works is checked beside it
    return
  }
  if (!(await session.load())) return navigateTo({ path: '/sign-in', query: { to: to.fullPath } })
})
