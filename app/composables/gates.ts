import type { LedgerEvent } from '#core/ledger/events'

/** A safety gate at a bench: with the server in reach, by a named person; a trainee's with a mechanic's hand. */
export function useGate(ledger: ReturnType<typeof useLedger>) {
  const session = useSession()
  const { trouble } = storeToRefs(ledger)
  const signing = shallowRef<{ event: LedgerEvent; words: string } | null>(null)
  const words = ref('')
  /** @param what what is held to be so, as the signing dialog says it */
  async function gate(event: LedgerEvent, what: string) {
    words.value = ''
    if (session.offline || trouble.value?.is === 'offline')
      return void (words.value = 'A gate is signed with the server in reach')
    if (session.now?.person?.role === 'trainee')
      signing.value = { event, words: `${what}: a mechanic tries it too and signs` }
    else await ledger.append(event)
  }
  async function signed(sign: { person: string; pin: string }) {
    const now = signing.value
    signing.value = null
    if (now) await ledger.append(now.event, sign)
  }
  return { signing, words, gate, signed }
}
