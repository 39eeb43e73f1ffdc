import { wrap, type Remote } from 'comlink'
import type { FrontAdvice } from '#core/front/contract'
import type { FrontApi, FrontQuestion } from './front'
import { useLatest, type Latest } from './latest'

/** The front's advice, worked out beside the page. */
export function useFront(question: Ref<FrontQuestion | null>): Readonly<Ref<Latest<FrontAdvice>>> {
  let worker: Worker | undefined
  let api: Remote<FrontApi> | undefined
  onScopeDispose(() => worker?.terminate())
  const { answer } = useLatest(question, async asked => {
    worker ??= new Worker(new URL('./front.ts', import.meta.url), { type: 'module' })
    api ??= wrap<FrontApi>(worker)
    const { advice, tookMs } = await api.advise(asked)
    performance.measure('front', { start: performance.now() - tookMs }) // read by bench/page.ts
    return advice
  })
  return answer
}
