import type { LedgerEvent } from '#core/ledger/events'

/** Entries put down by a touch: a quiet tick and a word for who cannot see it; the last one taken back. */
export function useTouches(ledger: ReturnType<typeof useLedger>) {
  const said = ref('')
  function put(event: LedgerEvent, words = 'Noted') {
    said.value = words
    requestAnimationFrame(() => setTimeout(tick))
    void ledger.append(event)
  }
  function undo() {
    said.value = ledger.canUndo ? 'Taken back' : 'Nothing to take back'
    void ledger.undo()
  }
  return { said, put, undo }
}

/** What every page of a job begins with: its log opened from this device and then the server, followed live, its title. */
export function useJobPage(title: () => string) {
  const number = Number(useRoute().params.number)
  const ledger = useLedger()
  const { state, record, loaded } = storeToRefs(ledger)
  useHead({ title: () => `Tag ${record.value?.tag ?? ''} · ${title()} · Ocho` })
  useLive(number)
  void ledger.open(number)
  return { number, ledger, state, record, loaded }
}
