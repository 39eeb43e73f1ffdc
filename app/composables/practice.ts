import { useLocalStorage } from '@vueuse/core'
import { z } from 'zod'
import { MyPractice } from '#core/http/practice'
import { newRun, PracticeRun, type PracticeAsked } from '#core/practice/asked'
import { PracticeResult } from '#core/practice/results'
import { PRACTICE_RUN_KEY } from '~/stores/practiceRun'

const Waiting = z.array(z.object({ person: z.string(), result: PracticeResult }))

/** What the server cannot read it never will: no use in sending it again. */
const UNREADABLE = 400

/** The run that is under way on this tablet: stopped in the middle it is taken up again. */
export function usePracticeRun(asked: PracticeAsked) {
  const stored = useLocalStorage<PracticeRun | null>(PRACTICE_RUN_KEY, null, {
    serializer: readAs(PracticeRun.nullable(), null),
    flush: 'sync',
  })
  const same = (run: PracticeRun | null) => run && JSON.stringify(run.asked) === JSON.stringify(asked)
  if (!same(stored.value) || stored.value?.kept) stored.value = newRun(asked)
  const run = computed<PracticeRun>({
    get: () => stored.value ?? newRun(asked),
    set: value => {
      stored.value = value
    },
  })
  return { run }
}

/** The run that was stopped in the middle, if there is one. */
export const useStoppedRun = () =>
  useLocalStorage<PracticeRun | null>(PRACTICE_RUN_KEY, null, { serializer: readAs(PracticeRun.nullable(), null) })

/** What a person practised: kept on the server for them alone; what it was away for waits here. */
export function useMyPractice() {
  const session = useSession()
  const me = computed(() => session.now?.person?.id ?? null)
  const waiting = useLocalStorage('ocho-practice-waiting', [], { serializer: readAs(Waiting, []) })
  const mine = shallowRef<MyPractice | null>(null)
  const away = ref(false)

  async function send(): Promise<void> {
    for (const w of waiting.value.filter(x => x.person === me.value)) {
      const answer = await ask(z.object({ ok: z.literal(true) }), '/api/practice', {
        method: 'POST',
        body: { result: w.result },
      })
      if (answer.is === 'offline') return
      // signed out meanwhile, or a fault of ours: it is sent another time
      if (answer.is === 'refused' && answer.status !== UNREADABLE) continue
      waiting.value = waiting.value.filter(x => x.result.id !== w.result.id)
    }
  }
  async function load(): Promise<void> {
    await send()
    const answer = await ask(MyPractice, '/api/practice')
    away.value = answer.is !== 'done'
    if (answer.is === 'done') mine.value = answer.value
  }
  /** Everything known of this person's practice, what waits included. */
  const results = computed<PracticeResult[]>(() => {
    const here = waiting.value.filter(w => w.person === me.value).map(w => w.result)
    const kept = mine.value?.results ?? []
    return [...here.filter(h => !kept.some(k => k.id === h.id)), ...kept]
  })
  async function keep(result: PracticeResult): Promise<void> {
    if (!me.value) return
    waiting.value = [...waiting.value, { person: me.value, result }]
    await send()
  }
  async function show(shows: boolean): Promise<void> {
    const answer = await ask(z.object({ ok: z.literal(true) }), '/api/practice/show', {
      method: 'POST',
      body: { shows },
    })
    if (answer.is === 'done' && mine.value) mine.value = { ...mine.value, shows }
  }
  return { results, mine, away, load, keep, show }
}
