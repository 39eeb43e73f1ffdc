import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { PersonId } from '#core/chapter/ids'
import { Done } from '#core/http/answers'
import { SessionView } from '#core/http/session'
import { ask } from '~/composables/ask'
import { dropDrafts } from './drafts'
import { kept } from './kept'

/** Who is signed in on this device and who works. Kept for the bench when the server is away. */
export const useSession = defineStore('session', () => {
  const now = shallowRef<SessionView | null>(null)
  const offline = ref(false)

  /** Asks the server; away from it, what was kept. False when nobody is signed in. */
  async function load(): Promise<boolean> {
    const asked = await ask(SessionView, '/api/session')
    if (asked.is === 'done') {
      now.value = asked.value
      offline.value = false
      await kept.keepSession(asked.value)
      return true
    }
    if (asked.is === 'offline') {
      offline.value = true
      now.value ??= (await kept.session()) ?? null
      return now.value !== null
    }
    return false
  }

  async function choose(person: PersonId, pin?: string) {
    const asked = await ask(Done, '/api/session/person', {
      method: 'POST',
      body: { person, ...(pin === undefined ? {} : { pin }) },
    })
    if (asked.is === 'done') await load()
    return asked
  }

  /** Signs out once nothing waits here; then everything kept is wiped. Returns how many taps still wait. */
  async function signOut(): Promise<number> {
    const waiting = await kept.tapsWaiting()
    if (waiting > 0) return waiting
    const asked = await ask(Done, '/api/sign-out', { method: 'POST' })
    if (asked.is === 'offline') return -1
    await kept.wipe()
    dropDrafts()
    await Promise.all(
      ((await globalThis.caches?.keys()) ?? []).filter(k => k.startsWith('bench-shell')).map(k => caches.delete(k)),
    )
    now.value = null
    return 0
  }

  return { now, offline, load, choose, signOut }
})
