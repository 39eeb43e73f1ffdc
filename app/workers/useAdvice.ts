import { wrap, type Remote } from 'comlink'
import type { BenchEvent } from '#core/rear/benchEvents'
import type { RearSetup } from '#core/response/setup'
import type { Picture } from '#core/advice/picture'
import type { AdviceOptions } from '#core/advice/contract'
import type { KnownPrior } from '#core/advice/prior'
import type { AdviceApi } from './advice'
import { plain, useLatest } from './latest'

export type Question = {
  job: number
  setup: RearSetup
  log: readonly BenchEvent[]
  prior: KnownPrior | undefined
  options: AdviceOptions
}

/** Longer than any honest answer; then the worker is started anew. */
const PATIENCE_MS = 20_000

let worker: Worker | undefined
let advice: Remote<AdviceApi> | undefined
let broken: ((reason: Error) => void) | undefined
/** The one worker answers one question after the other. */
let turn: Promise<unknown> = Promise.resolve()
let waiting = 0

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

/**
 * One question to the one worker, in its turn; rejects when it fails, takes too long, or was overtaken while it waited.
 */
export function askAdvice(question: Question, overtaken: () => boolean = () => false): Promise<Picture> {
  // asked at once where nothing waits: the worker thinks while the page is drawn
  const mine = waiting
    ? turn.then(() => {
        if (overtaken()) throw new Error('overtaken by a later question')
        return answer(plain(question))
      })
    : answer(plain(question))
  waiting++
  turn = mine.catch(() => undefined).finally(() => waiting--)
  return mine
}

function answer({ setup, log, prior, options }: Question): Promise<Picture> {
  return new Promise<Picture>((resolve, reject) => {
    const timer = setTimeout(() => {
      restart()
      reject(new Error('the advice took too long'))
    }, PATIENCE_MS)
    broken = reject
    theWorker()
      .picture(setup, log, { prior, ...options })
      .then(resolve, reject)
      .finally(() => clearTimeout(timer))
  })
}

/** Starts the worker, so that it is there before the log is. */
export const prepareAdvice = (): void => void theWorker()

/** The belief about a bench as it changes; the picture of another job is never shown. */
export function useAdvice(question: Ref<Question | null>) {
  const { answer: latest, again } = useLatest(question, async (now, overtaken) => {
    const start = performance.now()
    const picture = await askAdvice(now, overtaken)
    performance.measure('advice', { start }) // read by bench/page.ts
    return { job: now.job, picture }
  })
  const picture = computed<Picture | null>(() => {
    const { value } = latest.value
    return value && value.job === question.value?.job ? value.picture : null
  })
  /** Thinking about a question newer than the picture. */
  const stale = computed(() => latest.value.is === 'thinking')
  const failed = computed(() => (latest.value.is === 'failed' ? latest.value.message : null))
  return { picture, stale, failed, again }
}
