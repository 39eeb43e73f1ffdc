import { computedAsync } from '@vueuse/core'

/** An answer that is worked out beside the page; the old one stays to be looked at until the new one is there. */
export type Latest<A> =
  | { is: 'thinking'; value: A | null }
  | { is: 'ready'; value: A }
  | { is: 'failed'; message: string; value: null }

type Answered<A> = { key: string; value: A; message: null } | { key: string; value: null; message: string }

/**
 * Asks whenever the question changes in what it says: a tap that the server has acknowledged makes a new object, not a
 * new question, and must not make the answer stale again under a finger. Only the latest answer counts; null asks
 * nothing.
 * @param ask gets a question that crosses into a worker, and whether it was overtaken by a later one
 * @returns the answer, and a way to ask the same once more
 */
export function useLatest<Q, A>(
  question: Ref<Q | null>,
  ask: (question: Q, overtaken: () => boolean) => Promise<A>,
): { answer: Readonly<Ref<Latest<A>>>; again: () => void } {
  const tries = ref(0)
  const key = computed(() => JSON.stringify(question.value))
  const mounted = ref(false)
  onMounted(() => {
    mounted.value = true // workers live in browsers only
  })
  const answered = computedAsync<Answered<A> | null>(async onCancel => {
    const mine = `${tries.value} ${key.value}`
    if (!mounted.value || key.value === 'null') return null
    let late = false
    onCancel(() => {
      late = true
    })
    try {
      return { key: mine, value: await ask(JSON.parse(key.value) as Q, () => late), message: null }
    } catch (error) {
      return { key: mine, value: null, message: (error as Error).message }
    }
  }, null)
  const answer = computed<Latest<A>>(() => {
    const now = answered.value
    if (now?.key !== `${tries.value} ${key.value}`) return { is: 'thinking', value: now?.value ?? null }
    return now.message === null
      ? { is: 'ready', value: now.value }
      : { is: 'failed', message: now.message, value: null }
  })
  const again = () => {
    tries.value++
  }
  return { answer, again }
}

/** Reactive proxies do not cross into a worker. */
export const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T
