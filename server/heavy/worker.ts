import type { MessagePort } from 'node:worker_threads'
import { planImport, type Planned } from '#core/exchange/plan'
import type { EntryInForce } from '#core/standards/shopValues'
import { drawSheet, type SheetOf } from '../pdf/sheetPdf'
import { drawTag, type TagOf } from '../pdf/tagPdf'

/** What a thread of its own does, so that no tap waits for a page or a file. */
export type Heavy =
  | ({ what: 'sheet' } & SheetOf)
  | ({ what: 'tag' } & TagOf)
  | { what: 'plan'; text: string; kind: 'json' | 'csv'; catalogue: readonly EntryInForce[]; told: MessagePort }

/** Does it. Everything in and out can be copied between threads. */
export default async function work(heavy: Heavy): Promise<Uint8Array | Planned> {
  switch (heavy.what) {
    case 'sheet':
      return drawSheet(heavy)
    case 'tag':
      return drawTag(heavy)
    case 'plan':
      return planImport(heavy.text, heavy.kind, heavy.catalogue, new Set(), share => heavy.told.postMessage(share))
  }
}
