import { wrap, type Remote } from 'comlink'
import type { BenchEvent, RearSetup } from '#core/advice/contract'
import type { Picture } from '#core/advice/picture'
import type { KnownPrior } from '#core/advice/prior'
import type { AdviceApi } from './advice'

export type Question = { job: number; setup: RearSetup; log: BenchEvent[]; prior: KnownPrior | undefined }
export type Answer =
  | { is: 'thinking'; picture: Picture | null }
  | { is: 'ready'; picture: Picture; job: number }
  | { is: 'failed'; message: string; picture: Picture | null }

/** Longer than any honest answer; then the worker is started anew. */
const PATIENCE_MS = 20_000

let worker: Worker | undefined
let advice: Remote<AdviceApi> | undefined
let broken: ((reason: Error) => void) | undefined

function theWorker(): Remote<AdviceApi> {
  if (advice) return advice
  worker = new Worker(new URL('./advice.ts', import.meta.url), { type: 'module' })
  worker.onerror = event => {
    broken?.(new Error(event.message || 'the advice could not be loaded'))
    restart()
  }
  return (advice = wrap<AdviceApi>(worker))
}

function restart(): void {
  worker?.terminate()
  worker = advice = undefined
}

/** One question to the one worker; rejects when it fails or takes too long. */
export function askAdvice(question: Question): Promise<Picture> {
  return new Promise<Picture>((resolve, reject) => {
    const timer = setTimeout(() => {
      restart()
      reject(new Error('the advice took too long'))
    }, PATIENCE_MS)
    broken = reject
    // reactive proxies do not cross into a worker
    const { setup, log, prior } = JSON.parse(JSON.stringify(question)) as Question
    theWorker()
      .picture(setup, log, prior)
      .then(resolve, reject)
      .finally(() => clearTimeout(timer))
  })
}

/** The belief about a bench as it changes: only the latest question is asked, late answers are dropped. */
export function useAdvice(question: Ref<Question | null>) {
  const answer = shallowRef<Answer>({ is: 'thinking', picture: null })
  let asked = 0
  let busy = false
  const before = () => answer.value.picture
  async function work() {
    if (busy) return
    busy = true
    while (question.value) {
      const mine = asked
      const now = question.value
      const start = performance.now()
      try {
        const picture = await askAdvice(now)
        performance.measure('advice', { start }) // read by bench/page.ts
        if (mine === asked) answer.value = { is: 'ready', picture, job: now.job }
      } catch (error) {
        if (mine === asked) answer.value = { is: 'failed', message: (error as Error).message, picture: null }
      }
      if (mine === asked) break
    }
    busy = false
  }
  let job: number | null = null
  onMounted(() => {
    // by what it says: a tap acknowledged by the server is the same question and must not make the move stale under a finger
    watch(
      () => JSON.stringify(question.value),
      () => {
        const now = question.value
        if (!now) return
        asked++
        answer.value = { is: 'thinking', picture: job === now.job ? before() : null }
        job = now.job
        void work()
      },
      { immediate: true },
    )
  })
  const again = () => {
    asked++
    void work()
  }
  return { answer: readonly(answer) as Readonly<Ref<Answer>>, again }
}
