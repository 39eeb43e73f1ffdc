import { wrap, type Remote } from 'comlink'
import type { PracticeApi } from './practice'

let api: Remote<PracticeApi> | undefined
/** The worker that holds the practice bike. One for the tablet; it starts with the first question. */
export const practiceWorker = (): Remote<PracticeApi> =>
  (api ??= wrap<PracticeApi>(new Worker(new URL('./practice.ts', import.meta.url), { type: 'module' })))
