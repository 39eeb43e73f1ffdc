import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import sharp from 'sharp'
import { inShop } from '../../server/db/connect'
import { MAX_PHOTOS } from '#core/http/photos'
import { entryOf, found, signIn, type Rig } from './rig'

/** The same thing asked many times at the same moment is done once. */
export async function races({ url, shop, cluster }: Rig, rounds: number): Promise<void> {
  const owner = await signIn(url, shop.code, 'Ishbel')
  const by = await shop.person('Ishbel')
  const count = async (from: string, where: ReturnType<typeof sql>) => {
    const { rows } = await inShop(shop.db, shop.id, tx =>
      sql<{
        n: number
      }>`select count(*)::int as n from ${sql.table(from)} where shop = ${shop.id} and ${where}`.execute(tx),
    )
    return rows[0]!.n
  }
  const at = <T>(many: number, ask: (i: number) => Promise<T>) =>
    Promise.all(Array.from({ length: many }, (_, i) => ask(i)))
  const tell = (what: string, tries: number, bad: number, told: string) => found({ what, tries, bad, told })

  let bad = 0
  for (let round = 0; round < rounds; round++) {
    const tag = `R${round}`
    const order = {
      customer: { name: 'A', contact: '' },
      bike: { name: 'B', frameNumber: '' },
      tag,
      promisedAt: new Date().toISOString(),
      complaint: 'c',
      parts: null,
      sameParts: false,
    }
    const answers = await at(12, () => owner.send('POST', '/api/jobs', order))
    if (answers.filter(a => a.ok).length !== 1 || (await count('job', sql`tag = ${tag}`)) !== 1) bad++
  }
  tell('one tag taken in by twelve at once', rounds, bad, 'one job each time')

  bad = 0
  for (let round = 0; round < rounds; round++) {
    const number = await shop.take(`H${round}`)
    const order = { id: randomUUID(), basedOn: 1, how: 'unridable' }
    await at(8, i =>
      owner.send('POST', `/api/jobs/${number}/hand-back`, i % 2 ? order : { ...order, id: randomUUID() }),
    )
    const job = sql`job = (select id from job where shop = ${shop.id} and number = ${number})`
    const [sheets, recalls] = [await count('sheet', job), await count('recall', job)]
    const closings = await count('event', sql`${job} and body->>'kind' = 'handedBack'`)
    if (sheets !== 1 || recalls > 1 || closings !== 1) bad++
    await at(6, () => owner.send('POST', `/api/jobs/${number}/reopen`, { id: randomUUID(), basedOn: 2 }))
    if ((await count('event', sql`${job} and body->>'kind' = 'reopened'`)) !== 1) bad++
  }
  tell('handed back by eight, reopened by six at once', rounds, bad, 'one sheet, one entry each')

  /** No two of other widths are the same photograph. */
  const picture = (width: number) =>
    sharp({ create: { width, height: 30, channels: 3, background: '#456' } })
      .jpeg()
      .toBuffer()
  const photograph = (job: number, bytes: Buffer) =>
    owner.send('POST', `/api/jobs/${job}/photos?of=bike`, new Uint8Array(bytes), { 'content-type': 'image/jpeg' })
  const photosOf = (job: number) =>
    count('photo', sql`job = (select id from job where shop = ${shop.id} and number = ${job})`)
  const number = await shop.take('P1')
  const pictures = await Promise.all(Array.from({ length: MAX_PHOTOS + 16 }, (_, i) => picture(40 + i)))
  await Promise.all(pictures.map(p => photograph(number, p)))
  const photos = await photosOf(number)
  tell(
    'photographs sent at once',
    MAX_PHOTOS + 16,
    photos === MAX_PHOTOS ? 0 : 1,
    `${photos} kept of ${MAX_PHOTOS} allowed`,
  )
  const same = await shop.take('P2')
  await at(8, () => photograph(same, pictures[0]!))
  const once = await photosOf(same)
  tell('one photograph sent eight times at once', 8, once === 1 ? 0 : 1, `${once} kept`)

  bad = 0
  for (let round = 0; round < rounds; round++) {
    const job = await shop.take(`E${round}`)
    const entries = Array.from({ length: 20 }, () => entryOf(by, { kind: 'wheelOut', wheel: 'rear' }))
    // the same batch from ten tablets, each in another order
    await at(10, i =>
      owner.send('POST', `/api/jobs/${job}/events`, { entries: [...entries.slice(i), ...entries.slice(0, i)] }),
    )
    if ((await count('event', sql`job = (select id from job where shop = ${shop.id} and number = ${job})`)) !== 21)
      bad++
  }
  tell('one batch of twenty taps sent by ten at once', rounds, bad, 'each tap kept once, none missing')

  bad = 0
  for (let round = 0; round < rounds; round++) {
    const name = `Newcomer ${round}`
    await at(8, () => owner.send('POST', '/api/shop/people', { name, role: 'mechanic', pin: '1234' }))
    if ((await count('person', sql`name = ${name}`)) !== 1) bad++
  }
  tell('one person added by eight at once', rounds, bad, 'one each time')

  // limits hold to the number, however many ask at once
  const wren = await shop.person('Wren')
  const pins = await at(200, () => owner.send('POST', '/api/session/person', { person: wren, pin: '9999' }))
  const judged = pins.filter(p => p.status === 401).length
  tell('wrong PINs at once', 200, judged <= 6 ? 0 : 1, `${judged} judged, 6 allowed; the others refused unread`)
  const passwords = await at(200, () =>
    fetch(`${url}/api/sign-in`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ shop: shop.code, name: 'Moss', password: 'guessed' }),
    }),
  )
  const tried = passwords.filter(p => p.status === 401).length
  tell('wrong passwords at once', 200, tried <= 8 ? 0 : 1, `${tried} judged, 8 allowed`)
  const { verifyLedger } = await import('../../ops/verify')
  const chain = await verifyLedger(cluster.ownerUrl)
  tell('entries after all of this', chain.entries, chain.broken.length, 'each follows from the one before')
}
