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
