import { Done } from '#core/http/answers'
import { refAutoReset, useLocalStorage, useNow } from '@vueuse/core'
import type { LedgerEvent } from '#core/ledger/events'
import { signsFor } from '#core/ledger/gates'
import type { ChapterName } from '#core/ledger/chapters'
import { reduce, undoable, type Told } from '#core/ledger/reduce'
import { sayEvent } from '#core/ledger/say'
import type { BenchKeys } from './benchKeys'
import type { Sign } from '~/stores/outbox'

/** Something a mechanic answers for, waiting for a hand: what is signed, why a hand is asked for, and whose. */
export type Signing = { event: LedgerEvent; what: string; why: string; own: boolean }
/** A figure far from all others of such bikes: kept only when a person says so. */
export type Doubtful = { event: LedgerEvent; words: string; question: string }

/**
 * What every bench of a job does alike: its log opened from this device and then the server and followed live; entries
 * put down by a touch with a quiet tick; figures that are doubted, gates that are signed, the last touch taken back;
 * and the keys that mean the same everywhere.
 * @param title how the bench is called in the browser's own head
 * @param chapters whose entries are made here, so that Take back means them; every one's where left out
 * @param keys the bench's own keys, beside those that all have
 */
export function useBench(
  title: () => string,
  chapters: readonly ChapterName[] | null,
  keys: () => BenchKeys = () => ({}),
) {
  const number = Number(useRoute().params.number)
  const ledger = useLedger()
  const session = useSession()
  const { state, record, loaded, log, trouble, standards, closed } = storeToRefs(ledger)
  useHead({ title: () => `Tag ${record.value?.tag ?? ''} · ${title()} · Ocho` })
  useLive(number)
  useAwake()
  void ledger.open(number)

  /** The last thing that happened, for who cannot see it. */
  const said = ref('')
  /** Why something cannot be done just now. */
  const hint = ref('')
  const signing = shallowRef<Signing | null>(null)
  const doubtful = shallowRef<Doubtful | null>(null)
  const like = useLike(state, record)
  provide(LIKE, like)
  const offline = computed(() => session.offline || trouble.value?.is === 'offline')

  /**
   * Notes something: what is seen comes before what is heard. A gate waits for its hand, a doubtful figure for a word.
   */
  async function put(event: LedgerEvent, words = 'Noted', sure = false, at?: string): Promise<void> {
    hint.value = ''
    const question = sure ? null : like.question(event)
    if (question) return void (doubtful.value = { event, words, question })
    doubtful.value = null
    const what = signsFor(log.value, state.value, { event, ...stampOf() })
    if (what !== null) {
      if (offline.value) return void (hint.value = 'A gate is signed with the server in reach')
      if (session.now?.person?.role === 'trainee')
        return void (signing.value = { event, what, why: 'A mechanic looks too, and signs.', own: false })
    }
    await keep(event, words, undefined, at)
  }
  /**
   * All that one touch answers, noted in this frame and as of one moment: nothing is advised, or lost with its page,
   * between two of its entries, and one touch takes all of them back. One that waits for a hand or a word keeps those
   * after it back.
   * @returns whether all of them were noted
   */
  async function putAll(answers: readonly { event: LedgerEvent; words?: string }[]): Promise<boolean> {
    const puts: Promise<void>[] = []
    const at = new Date().toISOString()
    const waits = () => Boolean(hint.value || doubtful.value || signing.value)
    for (const { event, words } of answers) {
      puts.push(put(event, words, false, at))
      if (waits()) break
    }
    const all = !waits()
    await Promise.all(puts)
    return all
  }
  async function keep(event: LedgerEvent, words: string, sign?: Sign, at?: string): Promise<void> {
    said.value = words
    requestAnimationFrame(() => setTimeout(tick))
    await ledger.append(event, sign, at)
  }
  async function signed(sign: Sign): Promise<void> {
    const now = signing.value
    signing.value = null
    if (now) await keep(now.event, 'Signed', sign)
  }
  // whoever works here has not tapped for long: the server asks for their PIN before it takes a gate
  watch(trouble, told => {
    if (told?.is !== 'refused' || told.field !== 'sign' || !told.entry || signing.value) return
    const { event, id } = told.entry
    const before = log.value.filter(t => t?.id !== id)
    const what = signsFor(before, reduce(before), { event, ...stampOf() })
    const own = session.now?.person?.role !== 'trainee'
    signing.value = { event, what: what ?? 'Sign this', why: `${told.message}.`, own }
    useOutbox().clearTrouble()
  })

  const leaveGate = () => {
    signing.value = null
  }

  function keepDoubtful(): void {
    const d = doubtful.value
    if (d) void put(d.event, d.words, true)
  }
  const leaveDoubtful = () => {
    doubtful.value = null
  }

  const now = useNow({ interval: 30_000 })
  const last = computed(() =>
    undoable(state.value, {
      chapters,
      by: session.now?.person?.id ?? '',
      since: new Date(now.value.getTime() - TAKE_BACK_MINUTES * 60_000).toISOString(),
    }),
  )
  const words = (event: LedgerEvent) => sayEvent(event, state.value.rear.setup?.teeth ?? [])
  const wordsOf = ([first, ...others]: readonly Told[]) =>
    first ? `${others.length ? `${others.length + 1} at once: ` : ''}${words(first.event)}` : null
  /** What the next Take back takes back, in words; null when there is nothing. */
  const undoes = computed(() => wordsOf(last.value))
  /** What was just taken back, for a while. */
  const tookBack = refAutoReset('', 6_000)
  async function undo(): Promise<void> {
    const touch = last.value
    if (!touch.length) return void (said.value = 'Nothing of yours here to take back: older ones are on the job’s page')
    await takeBack(...touch)
  }
  async function takeBack(...entries: readonly Told[]): Promise<void> {
    const what = wordsOf(entries)!
    const all = await putAll(
      entries.map(({ id }) => ({ event: { kind: 'undo', undoes: id }, words: `Taken back: ${what}` })),
    )
    if (all) tookBack.value = what
  }

  /** Opens a closed job again, from whichever of its pages. */
  async function reopen(): Promise<void> {
    const asked = await ask(Done, `/api/jobs/${number}/reopen`, {
      method: 'POST',
      body: { id: newUuid(), basedOn: ledger.lastSeq },
    })
    hint.value = sayTrouble(asked)
    await ledger.refresh()
  }

  const keysShown = ref(false)
  const closeKeys = () => void (keysShown.value = false)
  const allKeys = (): BenchKeys => ({
    ...keys(),
    ...(doubtful.value ? { Enter: keepDoubtful, Escape: leaveDoubtful } : {}),
    z: () => void undo(),
    '?': () => void (keysShown.value = !keysShown.value),
    ...(keysShown.value ? { Escape: closeKeys } : {}),
  })
  /** The keys that do something on this bench just now. */
  const usedKeys = () => Object.keys(allKeys())
  useBenchKeys(allKeys)
  useThirdHand(words => void (said.value = words))

  return {
    number,
    ledger,
    state,
    record,
    loaded,
    standards,
    closed,
    offline,
    said,
    hint,
    put,
    putAll,
    signing,
    signed,
    leaveGate,
    keysShown,
    closeKeys,
    usedKeys,
    doubtful,
    keepDoubtful,
    leaveDoubtful,
    undoes,
    undo,
    tookBack,
    takeBack,
    reopen,
  }
}
export type Bench = ReturnType<typeof useBench>

/** What was done longer ago is taken back from the ledger's list, where it is seen among the rest. */
const TAKE_BACK_MINUTES = 15

/** What `signsFor` asks of an entry that is not made yet. */
const stampOf = () => ({ id: newUuid() as never, at: '', by: '' as never })

/** A choice this device keeps for a bench: which panel was open last. */
export const usePanel = <P extends string>(bench: string, usual: P) => useLocalStorage<P>(`ocho-panel-${bench}`, usual)
