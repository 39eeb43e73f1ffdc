import { PersonId, type Role } from '#core/chapter/ids'
import { defineEventHandler } from 'h3'
import { JobNumber } from '#core/http/job'
import { AppendRequest, Entry, type EntryAnswer } from '#core/ledger/events'
import { needsJudging, takesHand } from '#core/ledger/gates'
import { issuesOf } from '#core/http/words'
import { isFresh, requirePerson, tapped, type Actor } from '../../../auth/actor'
import { answering } from '../../../auth/answering'
import { handFor } from '../../../auth/hand'
import { personByPin } from '../../../auth/pin'
import { body, param, refuse } from '../../../auth/refuse'
import { append, appendJudged, type Judged, type Signed } from '../../../db/ledger'
import { db } from '../../../db/shared'
import { tellJob } from '../../../live/hub'

type Working = Actor & { person: NonNullable<Actor['person']> }
type Signer = { id: PersonId; role: Role }

/** Appends what a tablet tapped. Each entry is answered by itself: one refused never blocks the others. */
export default defineEventHandler(async (event): Promise<{ answers: EntryAnswer[] }> => {
  const actor = await requirePerson(event)
  const number = param(event, 'number', JobNumber)
  const { entries, sign } = await body(event, AppendRequest)
  const signer = sign ? await signerOf(actor, sign) : null
  const answers: EntryAnswer[] = new Array(entries.length)
  const good: { at: number; entry: Signed }[] = []
  entries.forEach((raw, at) => {
    const read = readEntry(raw, actor, signer)
    if ('is' in read) answers[at] = read
    else good.push({ at, entry: read })
  })
  if (good.length) {
    const outcomes = await answering(number, () =>
      keep(
        actor,
        signer,
        number,
        good.map(g => g.entry),
      ),
    )
    outcomes.forEach((outcome, i) => {
      answers[good[i].at] = answerOf(good[i].entry, outcome)
    })
    if (outcomes.some(o => o.outcome === 'stored')) tellJob(actor.shop, number, event)
    tapped(actor, actor.person.id)
  }
  return { answers }
})

/**
 * Plain taps go in as they come; what is a gate, or comes to a closed job, is judged on the log under the job's lock.
 */
async function keep(
  actor: Working,
  signer: Signer | null,
  number: number,
  entries: readonly Signed[],
): Promise<Judged[]> {
  const judged = () => appendJudged(db(), actor.shop, number, actor.session, entries, handFor(actor, signer))
  if (entries.some(e => needsJudging(e.event))) return judged()
  const outcomes = await append(db(), actor.shop, number, actor.session, entries)
  return outcomes.some(o => o.outcome === 'closed') ? judged() : outcomes
}

async function signerOf(actor: Actor, sign: { person: string; pin: string }): Promise<Signer> {
  const person = await personByPin(actor, sign.person, sign.pin)
  if (person.role === 'trainee')
    throw refuse(403, 'A mechanic or the owner signs a gate, not a trainee', [
      { field: 'sign', message: 'Choose a mechanic' },
    ])
  return { id: PersonId.parse(person.id), role: person.role }
}

/**
 * An entry with its person settled, or why it is refused. Who tapped is a claim until the session bears it out: another
 * name counts only while that person is unlocked on this device now, and never at a gate, which is judged on the log.
 */
function readEntry(raw: unknown, actor: Working, signer: Signer | null): Signed | EntryAnswer {
  const refused = (field: string, message: string): EntryAnswer => ({ is: 'refused', id: idOf(raw), field, message })
  const read = Entry.safeParse(raw)
  if (!read.success) {
    const [issue] = issuesOf(read.error)
    const unknown = issue.field === 'event.kind' || issue.field === 'v'
    return refused(
      issue.field,
      unknown ? 'This server does not know that kind of entry: reload to update' : `${issue.field}: ${issue.message}`,
    )
  }
  const entry = read.data
  const own = entry.by === actor.person.id
  const verified = own || isFresh(actor.unlocked.get(entry.by))
  const by = verified ? entry.by : PersonId.parse(actor.person.id)
  // who signed by PIN answers for the gate; tapping it oneself needs no second name
  const signedBy = signer && signer.id !== by && takesHand(entry.event) ? signer.id : null
  return { ...entry, by, verified, signedBy }
}

const idOf = (raw: unknown): string | null => {
  const id = (raw as { id?: unknown } | null)?.id
  return typeof id === 'string' ? id.slice(0, 80) : null
}

function answerOf(entry: Signed, told: Judged): EntryAnswer {
  const refused = (field: string, message: string): EntryAnswer => ({ is: 'refused', id: entry.id, field, message })
  switch (told.outcome) {
    case 'stored':
      return { is: 'stored', stored: { ...entry, seq: told.seq!, receivedAt: told.receivedAt!.toISOString() } }
    case 'held':
      return { is: 'held', id: entry.id, seq: told.seq! }
    case 'conflict':
      return refused('id', 'That id was used for something else: record it again')
    case 'outside':
      return refused('event', `This bike has ${told.seq} gears: sprockets count from 0 to ${told.seq! - 1}`)
    case 'closed':
      return refused('job', 'This job is closed: reopen it first')
    case 'refused':
      return refused(told.refusal.field, told.refusal.message)
  }
}
