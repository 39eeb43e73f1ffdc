import { wrap, type Remote } from 'comlink'
import type { HearingApi } from './hearing'

/** The listening beside the page: started when it is first asked. */
export function useHearing(): () => Remote<HearingApi> {
  let worker: Worker | undefined
  let api: Remote<HearingApi> | undefined
  onScopeDispose(() => worker?.terminate())
  return () => {
    worker ??= new Worker(new URL('./hearing.ts', import.meta.url), { type: 'module' })
    return (api ??= wrap<HearingApi>(worker))
  }
}
