import { watchDebounced } from '@vueuse/core'
import { z } from 'zod'
import { FoundBike } from '#core/http/door'
import { Seen } from '#core/job/seen'
import { FrameKind } from '#core/standards/frames'
import { Setup } from '#core/travel/setup'
import type { TypedParts } from '#core/rear/typedParts'
import { DOOR_DRAFT } from '~/stores/drafts'

const Draft = z.object({
  order: z.object({
    customer: z.object({ name: z.string(), contact: z.string() }),
    bike: z.object({ name: z.string(), frameNumber: z.string() }),
    tag: z.string(),
    promised: z.string(),
    complaint: z.string(),
  }),
  seen: Seen,
  frameKind: FrameKind.nullable(),
  typed: z.custom<TypedParts>(v => typeof v === 'object' && v !== null && 'teeth' in v),
  open: z.boolean(),
  byHand: z.boolean(),
  before: z.string(),
  code: Setup.nullable().default(null),
  brought: z.object({ customer: FoundBike.shape.customer, bike: FoundBike.nullable() }).nullable(),
})
type Draft = z.infer<typeof Draft>

/** Drafts name the shop and who is signed in there: another's is never taken up. */
const ofWhom = () => {
  const { now } = useSession()
  return `${DOOR_DRAFT}:${now?.shop.name ?? ''}:${now?.person?.id ?? ''}`
}

/** Keeps what is typed at the door while the tab lives. `resume` takes up what lay there, `begin` starts without it. */
export function useDoorDraft(form: { read: () => Draft; restore: (was: Draft) => void }) {
  let keeping = false
  const key = ofWhom()
  watchDebounced(
    form.read,
    now => {
      if (keeping) sessionStorage.setItem(key, JSON.stringify(now))
    },
    { debounce: 200, deep: true },
  )
  const begin = () => {
    keeping = true
  }
  return {
    begin,
    resume() {
      const kept = sessionStorage.getItem(key)
      const was = kept === null ? null : Draft.safeParse(JSON.parse(kept))
      if (was?.success) form.restore(was.data)
      begin()
    },
    forget() {
      keeping = false
      sessionStorage.removeItem(key)
    },
  }
}
