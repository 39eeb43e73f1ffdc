import ICAL from 'ical.js'
import { randomUUID } from 'node:crypto'
import { SMTPServer } from 'smtp-server'
import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest'
import type { LedgerEvent } from '#core/ledger/events'
import { recallAfterDays, usualSettling } from '#core/rear/settle'
import type { RecallAct } from '#core/http/recalls'
import { tokenHash } from '../auth/secrets'
import { icsOf } from '../calendar/ics'
import { smtpGateway } from '../gateway/smtp'
import { standIn } from '../gateway/standIn'
import { pump } from '../gateway/pump'
import type { Gateway } from '../gateway'
import { calendarOf, makeCalendar, revokeCalendar } from './calendars'
import { connect, inShop, type Db } from './connect'
import { entriesAfter } from './ledger'
import { actOnMessage } from './messages'
import { customerKept, eraseCustomer } from './privacy'
import { actOnRecall, leaveAlone, notBefore, recallDesk } from './recalls'
import { settledOf } from './settling'
import { BRAKES_HOLD, testShop } from './testShop'

let db: Db
beforeAll(() => {
  db = connect(inject('appUrl'), 4)
})
afterAll(() => db.destroy())

const AT = new Date('2026-11-25T12:00:00.000Z')
const later = (days: number) => new Date(AT.getTime() + days * 86_400_000)
const NEW_CABLE: LedgerEvent = { kind: 'replace', part: 'cable' }

async function shopWithRecall(contact = 'hob@quay.example', ...events: LedgerEvent[]) {
  const house = await testShop(db)
  const { shop } = house
  const number = await house.take({ customer: { name: 'Hob', contact } })
  await house.put(number, ...events, ...BRAKES_HOLD)
  await house.leave(number, {}, 'mechanic', AT)
  const desk = (now = AT) => inShop(db, shop, tx => recallDesk(tx, shop, now))
  const [recall] = (await desk()).recalls
  const hand = { shop, person: house.person, session: null }
  const act = (order: RecallAct, now = AT) => inShop(db, shop, tx => actOnRecall(tx, hand, recall!.id, order, now))
  const write = (now = AT, id = randomUUID()) => act({ do: 'write', id, text: 'Come by' }, now)
  const send = (gateway: Gateway, now = AT) => pump(db, shop, gateway, 'A', now)
  const messages = async () => (await desk()).recalls[0]!.messages
  return { ...house, number, recall: recall!, desk, act, write, send, messages, hand }
}

describe('the recall desk', () => {
  test('says who is due, why, and what to write; a new cable is asked back for the day it will want a touch', async () => {
    const old = await shopWithRecall()
    expect(old.recall).toMatchObject({ dueOn: '2026-12-09', state: 'due', customer: { name: 'Hob' } })
    expect(old.recall.why).toContain('set up here 0 days ago')
    const renewed = await shopWithRecall('hob@quay.example', NEW_CABLE)
    const days0 = recallAfterDays(null, { housingMm: null, bedded: false, riding: null }, usualSettling())
    expect(renewed.recall.dueOn).toBe(later(days0).toISOString().slice(0, 10))
    const { recalls } = await renewed.desk(later(14))
    expect(recalls[0]!.why).toContain('had a new gear cable 2 weeks ago')
    // what is overdue takes a place of today
    const late = (await renewed.desk(later(30))).days[0]
    expect(late).toEqual({ day: '2026-12-25', due: 1 })
    expect((await shopWithRecall('at the harbour')).recall.message).toBeNull()
  })
  test('is put off, settled and brought back; a day that is past and one that is settled are refused in words', async () => {
    const s = await shopWithRecall()
    await expect(s.act({ do: 'postpone', to: '2026-11-24' })).rejects.toThrow('That day is past')
    await expect(s.act({ do: 'postpone', to: '2028-11-24' })).rejects.toThrow('within a year')
    await s.act({ do: 'postpone', to: '2026-12-20' })
    await s.act({ do: 'postpone', to: '2026-12-22' })
    expect((await s.desk()).recalls[0]).toMatchObject({ dueOn: '2026-12-22', firstDueOn: '2026-12-09' })
    await s.act({ do: 'notneeded' })
    expect((await s.desk()).recalls[0]).toMatchObject({ state: 'notneeded' })
    await expect(s.act({ do: 'postpone', to: '2026-12-23' })).rejects.toThrow('settled')
    await expect(s.write()).rejects.toThrow('settled')
    await s.act({ do: 'due' })
    expect((await s.desk()).recalls[0]).toMatchObject({ state: 'due' })
    // what was settled long ago is out of sight
    await s.act({ do: 'done' })
    expect((await s.desk(later(8))).recalls).toEqual([])
  })
  test('a message is written once, sent once however many servers send, and answered; STOP is kept', async () => {
    const s = await shopWithRecall()
    const id = randomUUID()
    await s.write(AT, id)
    await s.write(AT, id)
    expect(await s.messages()).toHaveLength(1)
    let sent = 0
    const counting: Gateway = {
      ...standIn,
      send: async m => {
        sent++
        await new Promise(done => setTimeout(done, 30))
        return standIn.send(m, '')
      },
    }
    await Promise.all([1, 2, 3, 4].map(() => s.send(counting)))
    expect(sent).toBe(1)
    expect(await s.messages()).toMatchObject([{ state: 'sent', way: 'mail', address: 'hob@quay.example' }])
    const answer = (text: string) =>
      inShop(db, s.shop, tx => actOnMessage(tx, s.shop, id, { do: 'answered', text }, AT))
    await answer('Friday suits')
    expect(await s.messages()).toMatchObject([{ state: 'answered', answer: 'Friday suits' }])
    await answer('STOP')
    const [recall] = (await s.desk()).recalls
    expect(recall).toMatchObject({ message: null, customer: { noMessages: true } })
    await expect(s.write()).rejects.toThrow('wants no messages')
    await inShop(db, s.shop, tx => leaveAlone(tx, s.shop, recall!.customer.id, false))
    await s.write()
    expect(await s.messages()).toHaveLength(2)
  })
  test('in quiet hours it waits until morning on the shop’s clock; a bike that came is not asked for', async () => {
    const s = await shopWithRecall()
    const night = new Date('2026-11-25T21:30:00.000Z')
    await s.write(night)
    expect(await s.send(standIn, night)).toBe(0)
    expect((await s.messages())[0]).toMatchObject({ state: 'queued', notBefore: '2026-11-26T08:00:00.000Z' })
    await s.act({ do: 'came' }, night)
    expect(await s.send(standIn, later(2))).toBe(0)
    expect((await s.messages())[0]!.state).toBe('withdrawn')
    // the hour that a spring night leaves out: quiet until eight on the clock, an hour sooner in UTC
    const desk = { quietFrom: 20, quietTo: 8, placesADay: 4 }
    expect(notBefore(desk, 'Europe/Paris', new Date('2026-03-28T22:10:00.000Z')).toISOString()).toBe(
      '2026-03-29T06:00:00.000Z',
    )
    expect(notBefore({ ...desk, quietTo: 20 }, 'Europe/Paris', night)).toBe(night)
  })
  test('an address that refuses is said so, called off or tried again; a server that is away is tried later', async () => {
    const s = await shopWithRecall('refused@quay.example')
    await s.write()
    await s.send(standIn)
    const [failed] = await s.messages()
    expect(failed).toMatchObject({ state: 'failed' })
    expect(failed!.trouble).toContain('refuses this address')
    const act = (order: 'again' | 'withdraw') =>
      inShop(db, s.shop, tx => actOnMessage(tx, s.shop, failed!.id, { do: order }, AT))
    await act('again')
    const away: Gateway = { ...standIn, send: () => Promise.resolve({ is: 'later', why: 'not there' }) }
    for (const minutes of [0, 2, 13, 80]) await s.send(away, new Date(AT.getTime() + minutes * 60_000))
    expect((await s.messages())[0]).toMatchObject({ state: 'failed', trouble: 'not there' })
    await act('withdraw')
    await expect(act('again')).rejects.toThrow('Only what failed')
    // a server killed with a message in hand: another takes it up some minutes later
    await s.write()
    const killed: Gateway = { ...standIn, send: () => Promise.reject(new Error('killed')) }
    await expect(s.send(killed)).rejects.toThrow('killed')
    expect(await s.send(standIn, new Date(AT.getTime() + 60_000))).toBe(0)
    expect(await s.send({ ...standIn }, new Date(AT.getTime() + 6 * 60_000))).toBe(1)
  })
  test('a bike that is taken in again is not asked for any more', async () => {
    const s = await shopWithRecall()
    await s.write(new Date('2026-11-25T21:30:00.000Z'))
    await s.take({ customer: { id: s.recall.customer.id }, bike: { id: s.recall.bike.id }, sameParts: true })
    const [recall] = (await s.desk(later(1))).recalls
    expect(recall).toMatchObject({ state: 'came', messages: [{ state: 'withdrawn' }] })
  })
  test('one that is here, or asked already, is not brought back; one taken in by mistake is asked as before', async () => {
    const s = await shopWithRecall()
    const known = { customer: { id: s.recall.customer.id }, bike: { id: s.recall.bike.id }, sameParts: true }
    const states = async () => (await s.desk(later(1))).recalls.map(r => [r.job.number, r.state])
    const second = await s.take(known)
    await expect(s.act({ do: 'due' })).rejects.toThrow('This bike is here, under tag')
    await s.leave(second, { how: 'cancelled' })
    expect(await states()).toEqual([[s.number, 'due']])
    // opened again it is here, and not asked for
    await s.open(second)
    expect(await states()).toEqual([[s.number, 'came']])
    await s.leave(second, { how: 'cancelled' })
    const after = await s.take(known)
    await s.put(after, ...BRAKES_HOLD)
    await s.leave(after, {}, 'mechanic', AT)
    expect((await states()).sort()).toEqual([
      [s.number, 'came'],
      [after, 'due'],
    ])
    await expect(s.act({ do: 'due' })).rejects.toThrow('asked back already, for Wednesday 9 December')
    // what its rider came by for, without a job, stays so
    const third = await shopWithRecall()
    await third.act({ do: 'came' })
    const again = await third.take({
      customer: { id: third.recall.customer.id },
      bike: { id: third.recall.bike.id },
      sameParts: true,
    })
    await third.leave(again, { how: 'cancelled' })
    expect((await third.desk(later(1))).recalls.map(r => r.state)).toEqual(['came'])
  })
  test('one that was on its way as its bike came, and did not get through, is not sent again', async () => {
    const minutes = (n: number) => new Date(AT.getTime() + n * 60_000)
    for (const ends of ['later', 'killed'] as const) {
      const s = await shopWithRecall()
      await s.write()
      const meanwhile: Gateway = {
        ...standIn,
        send: async () => {
          await s.act({ do: 'came' })
          if (ends === 'killed') throw new Error('killed')
          return { is: 'later', why: 'not there' }
        },
      }
      await s.send(meanwhile).catch(() => 0)
      expect(await s.send(standIn, minutes(60))).toBe(0)
      expect((await s.messages())[0]!.state).toBe('withdrawn')
    }
    // nor to a customer who wrote STOP meanwhile; one that is still wanted goes
    const s = await shopWithRecall()
    await s.write()
    const away: Gateway = { ...standIn, send: () => Promise.resolve({ is: 'later', why: 'not there' }) }
    await s.send(away)
    await inShop(db, s.shop, tx =>
      tx.updateTable('customer').set({ no_messages: true }).where('id', '=', s.recall.customer.id).execute(),
    )
    expect(await s.send(standIn, minutes(60))).toBe(0)
    const wanted = await shopWithRecall()
    await wanted.write()
    await wanted.send(away)
    expect(await wanted.send(standIn, minutes(60))).toBe(1)
  })
  test('what the rider tells goes into the ledger once, and teaches how runs settle here', async () => {
    const s = await shopWithRecall('hob@quay.example', NEW_CABLE, { kind: 'ridden', how: 'daily' })
    const id = randomUUID()
    const told = { do: 'reported', id, says: 'slack', sixteenths: 4 } as const
    await s.act(told, later(12))
    await s.act(told, later(12))
    const log = await inShop(db, s.shop, async tx => {
      const { id: job } = await tx
        .selectFrom('job')
        .select('id')
        .where('shop', '=', s.shop)
        .where('number', '=', s.number)
        .executeTakeFirstOrThrow()
      return entriesAfter(tx, s.shop, job, 0)
    })
    expect(log.filter(e => e?.event.kind === 'riderSaid')).toHaveLength(1)
    expect(await inShop(db, s.shop, tx => settledOf(tx, s.shop))).toEqual([
      { housingMm: null, bedded: false, riding: 'daily', days: 12, turns: 0.25 },
    ])
    expect((await s.desk()).recalls[0]!.report).toBe('slow leaving the smallest sprocket')
    // opened again, it is asked for no more: its recall is gone, and what waits is not sent
    await s.write(new Date('2026-11-25T21:30:00.000Z'))
    await s.open(s.number)
    expect((await s.desk()).recalls).toEqual([])
    expect(await s.send(standIn, later(20))).toBe(0)
  })
  test('no shop acts on another’s recall or message', async () => {
    const [a, b] = [await shopWithRecall(), await shopWithRecall()]
    await a.write()
    const [message] = await a.messages()
    await expect(inShop(db, b.shop, tx => actOnRecall(tx, b.hand, a.recall.id, { do: 'done' }, AT))).rejects.toThrow(
      'not there',
    )
    await expect(
      inShop(db, b.shop, tx => actOnMessage(tx, b.shop, message!.id, { do: 'withdraw' }, AT)),
    ).rejects.toThrow('no such message')
    expect(await inShop(db, b.shop, tx => leaveAlone(tx, b.shop, a.recall.customer.id, true))).toBe(false)
  })
  test('erasing a customer empties what was written to them; it is in what is kept on them before', async () => {
    const s = await shopWithRecall()
    await s.write()
    const { id } = s.recall.customer
    expect((await inShop(db, s.shop, tx => customerKept(tx, s.shop, id))).messages).toMatchObject([{ body: 'Come by' }])
    await inShop(db, s.shop, tx => eraseCustomer(tx, s.shop, id))
    const [left] = await s.messages()
    expect(left).toMatchObject({ state: 'withdrawn', address: '', body: 'erased' })
    expect(JSON.stringify(await s.desk())).not.toContain('quay.example')
  })
})

describe('the calendar', () => {
  test('holds bikes and tags and nobody’s name, read back by a general parser (RFC 5545, ical.js); a dead token opens nothing', async () => {
    const s = await shopWithRecall()
    const hash = tokenHash('a-token-of-a-test')
    await inShop(db, s.shop, tx => makeCalendar(tx, s.shop, s.person, hash))
    const found = (await calendarOf(db, hash, AT))!
    expect(JSON.stringify(found)).not.toContain('Hob')
    const text = icsOf('A; B, “C”', found.entries, 'https://ocho.lan', AT)
    const calendar = new ICAL.Component(ICAL.parse(text) as unknown[])
    expect(calendar.getFirstPropertyValue('version')).toBe('2.0')
    const [event] = calendar.getAllSubcomponents('vevent').map(c => new ICAL.Event(c))
    expect(event!.uid).toBe(`${s.recall.id}@ocho`)
    expect([event!.startDate.isDate, event!.startDate.toString()]).toEqual([true, '2026-12-09'])
    expect(event!.summary).toContain('Recall: ')
    // lines are folded at 75 octets (RFC 5545, 3.1)
    for (const line of text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75)
    const { calendars } = await s.desk()
    expect(calendars).toMatchObject([{ seenAt: AT.toISOString() }])
    expect(await inShop(db, s.shop, tx => revokeCalendar(tx, s.shop, calendars[0]!.id))).toBe(true)
    expect(await calendarOf(db, hash)).toBeNull()
    expect(await calendarOf(db, tokenHash('another'))).toBeNull()
  })
})

test('mail goes by a real mail server’s protocol: taken, refused for good, and away', async () => {
  const got: string[] = []
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS'],
    onRcptTo: ({ address }, _, done) =>
      done(
        address.startsWith('nobody')
          ? Object.assign(new Error('no such mailbox'), { responseCode: 550 })
          : address.startsWith('busy')
            ? Object.assign(new Error('try later'), { responseCode: 451 })
            : null,
      ),
    onData: (stream, _, done) => {
      let text = ''
      stream.on('data', chunk => (text += String(chunk)))
      stream.on('end', () => {
        got.push(text)
        done()
      })
    },
  })
  const port = await new Promise<number>(done => {
    const listening = server.listen(0, '127.0.0.1', () => done((listening.address() as { port: number }).port))
  })
  try {
    const mail = smtpGateway(`smtp://127.0.0.1:${port}`, 'shop@quay.example')
    const to = (address: string, way: 'mail' | 'text' = 'mail') =>
      mail.send({ id: randomUUID(), way, address, body: 'Petrel lane: ten minutes', tries: 0 }, 'A: your bike')
    expect(await to('hob@quay.example')).toEqual({ is: 'sent' })
    expect(got[0]).toContain('Subject: A: your bike')
    expect(got[0]).toContain('Petrel lane: ten minutes')
    expect(await to('nobody@quay.example')).toMatchObject({ is: 'refused' })
    expect(await to('busy@quay.example')).toMatchObject({ is: 'later' })
    expect(await to('0855550100', 'text')).toMatchObject({ is: 'refused' })
  } finally {
    await new Promise<void>(done => server.close(done))
  }
  expect(
    await smtpGateway(`smtp://127.0.0.1:${port}`).send(
      { id: '', way: 'mail', address: 'hob@quay.example', body: '', tries: 0 },
      '',
    ),
  ).toMatchObject({ is: 'later' })
})
