import { wrap, type Remote } from 'comlink'
import type { SightApi } from './sight'

/** The measuring beside the page: started when a picture is first opened. */
export function useSight(): () => Remote<SightApi> {
  let worker: Worker | undefined
  let api: Remote<SightApi> | undefined
  onScopeDispose(() => worker?.terminate())
  return () => {
    worker ??= new Worker(new URL('./sight.ts', import.meta.url), { type: 'module' })
    return (api ??= wrap<SightApi>(worker))
  }
}
