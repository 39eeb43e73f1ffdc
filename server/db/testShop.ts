import { EventId, PersonId, type Role } from '#core/chapter/ids'
import { randomUUID } from 'node:crypto'
import type { HandBack } from '#core/http/job'
import { EVENT_VERSION, type LedgerEvent } from '#core/ledger/events'
import type { Hand } from '#core/ledger/gates'
import { stockParts } from '#core/rear/typedParts'
import { inShop, type Db } from './connect'
import { takeIn } from './jobs'
import { append, appendJudged, entriesAfter, type Signed } from './ledger'
import { createShop } from './people'
import { handBack, reopen } from './sheets'

/** Both brakes hold. */
export const BRAKES_HOLD: LedgerEvent[] = [
  { kind: 'proof', brake: 'front', holds: true },
  { kind: 'proof', brake: 'rear', holds: true },
]

/** For tests: a shop of their own with one mechanic, and its services with what a test seldom says left out. */
export async function testShop(db: Db, zone = 'UTC') {
  const shop = randomUUID()
  const person = await createShop(
    db,
    { id: shop, code: `t-${shop.slice(0, 8)}`, name: 'A', zone, demo: false },
    { name: 'Ishbel', role: 'owner', passwordHash: null, pinHash: 'x' },
  )
  let tag = 0
  type Order = Parameters<typeof takeIn>[4]
  /** By an id of its own, as a request that was sent again bears it. */
  const takeAs = (id: string | undefined, order: Partial<Order> = {}) =>
    takeIn(
      db,
      shop,
      person,
      null,
      {
        customer: { name: 'Hob', contact: '' },
        bike: { name: 'Marram', frameNumber: 'F1' },
        tag: `T${++tag}`,
        promisedAt: '2026-11-26T12:00:00.000Z',
        complaint: 'slow',
        parts: stockParts('r14-10'),
        sameParts: false,
        ...order,
      },
      undefined,
      id,
    )
  const take = (order: Partial<Order> = {}) => takeAs(undefined, order)
  const entry = (event: LedgerEvent, id: string = randomUUID()): Signed => ({
    id: EventId.parse(id),
    v: EVENT_VERSION,
    at: '2026-11-25T10:00:00.000Z',
    basedOn: 1,
    by: PersonId.parse(person),
    event,
    verified: true,
    signedBy: null,
  })
  const hand =
    (role: Role = 'mechanic', fresh = true) =>
    async (): Promise<Hand> => ({ person: PersonId.parse(person), role, fresh })
  return {
    shop,
    person,
    take,
    takeAs,
    entry,
    hand,
    /** As it comes, nothing judged. */
    put: (number: number, ...events: LedgerEvent[]) =>
      append(
        db,
        shop,
        number,
        null,
        events.map(e => entry(e)),
      ),
    /** Judged on the log. */
    tap: (number: number, events: readonly (LedgerEvent | Signed)[], role: Role = 'mechanic', fresh = true) =>
      appendJudged(
        db,
        shop,
        number,
        null,
        events.map(e => ('kind' in e ? entry(e) : e)),
        hand(role, fresh),
      ),
    leave: (number: number, order: Partial<HandBack> = {}, role: Role = 'mechanic', at = new Date(), fresh = true) =>
      handBack(
        db,
        shop,
        number,
        person,
        null,
        { id: randomUUID(), basedOn: 1, how: 'proven', fault: null, ...order },
        hand(role, fresh),
        at,
      ),
    open: (number: number, id: string = randomUUID()) => reopen(db, shop, number, person, null, { id, basedOn: 1 }),
    log: (number: number) =>
      inShop(db, shop, async tx => {
        const job = await tx.selectFrom('job').select('id').where('number', '=', number).executeTakeFirstOrThrow()
        return entriesAfter(tx, shop, job.id, 0)
      }),
  }
}
