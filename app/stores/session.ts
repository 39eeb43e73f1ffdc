import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { PersonId } from '#core/chapter/ids'
import { Done } from '#core/http/answers'
import { SessionView } from '#core/http/session'
import { REVOKED } from '#core/http/page'
import { ask, pageIsOf } from '~/composables/ask'
import { dropDrafts } from './drafts'
import { kept } from './kept'
import { dropPracticeRun } from './practiceRun'

/** Who is signed in on this device and who works. Kept for the bench when the server is away. */
export const useSession = defineStore('session', () => {
  const now = shallowRef<SessionView | null>(null)
  const offline = ref(false)

  /** Asks the server; away from it, what was kept. False when nobody is signed in. */
  async function load(): Promise<boolean> {
    // who is signed in here is asked whatever shop this page was of
    pageIsOf(null)
    const asked = await ask(SessionView, '/api/session')
    if (asked.is === 'done') {
      const before = now.value?.shop.code
      now.value = asked.value
      offline.value = false
      await adopt(asked.value)
      // what this page still holds is of the shop before
      if (before !== undefined && before !== asked.value.shop.code) globalThis.location?.reload()
      return true
    }
    pageIsOf(now.value?.shop.code ?? null)
    if (asked.is === 'offline') {
      offline.value = true
      now.value ??= (await kept.session()) ?? null
      pageIsOf(now.value?.shop.code ?? null)
      return now.value !== null
    }
    if (asked.issues.some(i => i.field === 'session' && i.message === REVOKED)) await forget()
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
    const waiting = now.value ? (await kept.taps(now.value.shop.code)).length : 0
    if (waiting > 0) return waiting
    const asked = await ask(Done, '/api/sign-out', { method: 'POST' })
    if (asked.is === 'offline') return -1
    await forget()
    return 0
  }

  /**
   * Keeps who is signed in, as the server's first page said it: from here on what is asked says of which shop it is.
   */
  async function adopt(view: SessionView): Promise<void> {
    pageIsOf(view.shop.code)
    await kept.keepSession(view)
  }

  /** All that this device keeps and could show. */
  async function forget(): Promise<void> {
    await kept.wipe()
    dropDrafts()
    dropPracticeRun()
    await Promise.all(
      ((await globalThis.caches?.keys()) ?? []).filter(k => k.startsWith('bench-shell')).map(k => caches.delete(k)),
    )
    now.value = null
    pageIsOf(null)
  }

  return { now, offline, load, adopt, choose, signOut }
})
