/** An answer that is worked out beside the page; the old one stays to be looked at until the new one is there. */
export type Latest<A> =
  { is: 'thinking'; value: A | null } | { is: 'ready'; value: A } | { is: 'failed'; message: string; value: null }

/**
 * Asks whenever the question changes in what it says: a tap that the server has acknowledged makes a new object, not a new
 * question, and must not make the answer stale again under a finger. A late answer is dropped. Null asks nothing.
 */
export function useLatest<Q, A>(question: Ref<Q | null>, ask: (question: Q) => Promise<A>): Readonly<Ref<Latest<A>>> {
  const answer = shallowRef<Latest<A>>({ is: 'thinking', value: null })
  let last = 0
  onMounted(() =>
    watch(
      () => JSON.stringify(question.value),
      async now => {
        const mine = ++last
        if (now === 'null') return
        answer.value = { is: 'thinking', value: answer.value.value }
        try {
          const value = await ask(JSON.parse(now) as Q) // reactive proxies do not cross into a worker
          if (mine === last) answer.value = { is: 'ready', value }
        } catch (error) {
          if (mine === last) answer.value = { is: 'failed', message: (error as Error).message, value: null }
        }
      },
      { immediate: true },
    ),
  )
  return answer
}

/** Reactive proxies do not cross into a worker. */
export const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T
