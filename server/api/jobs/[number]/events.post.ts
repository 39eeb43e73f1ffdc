import { defineEventHandler } from 'h3'
import { JobNumber } from '#core/http/job'
import { AppendRequest, Entry, isGate, PersonId, type EntryAnswer } from '#core/ledger/events'
import { issuesOf } from '#core/http/words'
import { requirePerson, tapped, type Actor } from '../../../auth/actor'
import { personByPin } from '../../../auth/pin'
import { body, param, refuse } from '../../../auth/refuse'
import { inShop } from '../../../db/connect'
import { followParts, placeJob } from '../../../db/jobs'
import { append, NoSuchJob, type Outcome, type Signed } from '../../../db/ledger'
import { db } from '../../../db/shared'
import { tellJob } from '../../../live/hub'

/** Appends what a tablet tapped. Each entry is answered by itself: one refused never blocks the others. */
export default defineEventHandler(async (event): Promise<{ answers: EntryAnswer[] }> => {
  const actor = await requirePerson(event)
  const number = param(event, 'number', JobNumber)
  const { entries, sign } = await body(event, AppendRequest)
  const signer = sign ? await signerOf(actor, sign) : null
  const answers: EntryAnswer[] = new Array(entries.length)
  const good: { at: number; entry: Signed }[] = []
  entries.forEach((raw, at) => {
    const read = judge(raw, actor, signer)
    if ('is' in read) answers[at] = read
    else good.push({ at, entry: read })
  })
  if (good.length) {
    const outcomes = await append(
      db(),
      actor.shop,
      number,
      actor.session,
      good.map(g => g.entry),
    ).catch((error: unknown) => {
      if (error instanceof NoSuchJob) throw refuse(404, `There is no job ${number} here: look on the Floor`)
      throw error
    })
    outcomes.forEach((outcome, i) => {
      answers[good[i].at] = answerOf(good[i].entry, outcome)
    })
    const moved = good.findLast(({ at, entry }) => answers[at].is === 'stored' && entry.event.kind === 'placed')?.entry
      .event
    if (moved?.kind === 'placed')
      await inShop(db(), actor.shop, tx => placeJob(tx, actor.shop, number, moved.where, moved.stand))
    const drivetrainMoved = good.some(
      ({ at, entry }) => answers[at].is === 'stored' && (entry.event.kind === 'parts' || entry.event.kind === 'undo'),
    )
    if (drivetrainMoved) await inShop(db(), actor.shop, tx => followParts(tx, actor.shop, number))
    if (outcomes.some(o => o.outcome === 'stored')) tellJob(actor.shop, number)
    tapped(actor, actor.person.id)
  }
  return { answers }
})

async function signerOf(actor: Actor, sign: { person: string; pin: string }): Promise<PersonId> {
  const person = await personByPin(actor, sign.person, sign.pin)
  if (person.role === 'trainee')
    throw refuse(403, 'A mechanic or the owner signs a gate, not a trainee', [
      { field: 'sign', message: 'Choose a mechanic' },
    ])
  return PersonId.parse(person.id)
}

/** An entry with its person settled, or why it is refused. Who tapped is a claim until the session bears it out. */
function judge(
  raw: unknown,
  actor: Actor & { person: NonNullable<Actor['person']> },
  signer: PersonId | null,
): Signed | EntryAnswer {
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
  if (['arrived', 'handedBack', 'reopened'].includes(entry.event.kind))
    return refused('event.kind', 'A bike is taken in, handed back and reopened by its own request')
  const unlockedHere = actor.unlocked.has(entry.by)
  const by = unlockedHere ? entry.by : actor.person.id
  if (isGate(entry.event)) {
    if (!unlockedHere) return refused('by', 'A gate is signed by the person who is unlocked here')
    if (actor.person.role === 'trainee' && !signer)
      return refused('sign', 'A mechanic signs this: choose a name and type the PIN')
  }
  return {
    ...entry,
    by: PersonId.parse(by),
    verified: unlockedHere,
    signedBy: isGate(entry.event) && actor.person.role === 'trainee' ? signer : null,
  }
}

const idOf = (raw: unknown): string | null => {
  const id = (raw as { id?: unknown } | null)?.id
  return typeof id === 'string' ? id.slice(0, 80) : null
}

function answerOf(entry: Signed, { outcome, seq, receivedAt }: Outcome): EntryAnswer {
  switch (outcome) {
    case 'stored':
      return { is: 'stored', stored: { ...entry, seq: seq!, receivedAt: receivedAt!.toISOString() } }
    case 'held':
      return { is: 'held', id: entry.id, seq: seq! }
    case 'conflict':
      return {
        is: 'refused',
        id: entry.id,
        field: 'id',
        message: 'That id was used for something else: record it again',
      }
    case 'outside':
      return {
        is: 'refused',
        id: entry.id,
        field: 'event',
        message: `This bike has ${seq} gears: sprockets count from 0 to ${seq! - 1}`,
      }
  }
}
