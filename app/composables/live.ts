import { useDocumentVisibility, useEventListener, useEventSource, useTimeoutFn } from '@vueuse/core'
import { useLedger } from '~/stores/ledger'
import { THIS_PAGE } from './ids'

/** How long to wait before listening again after the line broke, ms. */
const AGAIN_MS = 2000

/** How long the look that the line's first word asks for waits, ms. */
const FIRST_LOOK_MS = 800

/** Keeps a bench up to date with the other tablets: hints from the server, and a look whenever the network is back. */
export function useLive(number: number): void {
  const ledger = useLedger()
  const visible = useDocumentVisibility()
  // six connections an origin: only the bench in sight listens
  const url = computed(() => (visible.value === 'visible' ? `/api/jobs/${number}/live?page=${THIS_PAGE}` : undefined))
  const line = useEventSource(url, [], { autoReconnect: { delay: AGAIN_MS }, immediate: import.meta.client })
  // the line’s first word is for what came between the page’s own look and its opening: that may wait until it is drawn
  const { start: lookLater } = useTimeoutFn(() => void ledger.refresh(), FIRST_LOOK_MS, { immediate: false })
  let opened = false
  // each piece of news has an id of its own; a beat has none
  watch(line.lastEventId, () => {
    if (opened) void ledger.refresh()
    else lookLater()
    opened = true
  })
  useEventListener('online', () => void ledger.refresh())
}
