import { useDocumentVisibility, useEventListener } from '@vueuse/core'
import { useLedger } from '~/stores/ledger'

/** Keeps a bench up to date with the other tablets: hints from the server, and a look whenever the network is back. */
export function useLive(number: number): void {
  const ledger = useLedger()
  const visible = useDocumentVisibility()
  let stream: EventSource | undefined
  const close = () => {
    stream?.close()
    stream = undefined
  }
  // six connections an origin: only the bench in sight listens
  const listen = () => {
    close()
    if (visible.value !== 'visible') return
    stream = new EventSource(`/api/jobs/${number}/live`)
    stream.onmessage = message => {
      if (message.data === 'news') void ledger.refresh()
    }
  }
  onMounted(() => {
    listen()
    watch(visible, listen)
  })
  useEventListener('online', () => void ledger.refresh())
  onBeforeUnmount(close)
}
