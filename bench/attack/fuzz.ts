import { randomUUID } from 'node:crypto'
import { APART, routesWith } from './routes'
import { entryOf, found, rng, signIn, type Rig } from './rig'

/** What no field should be. */
const NASTY: readonly unknown[] = [
  null,
  '',
  ' ',
  0,
  -1,
  -3.5,
  1e9,
  1e300,
  2 ** 31,
  2 ** 53,
  true,
  [],
  {},
  [[[[]]]],
  { $ne: null },
  'NaN',
  '<b>bold</b>',
  "'; drop table event; --",
  '\0',
  'half \ud800',
  'x'.repeat(5_000),
  '=1+1',
  '../../etc/passwd',
  '0000-00-00T00:00:00Z',
  '9999-12-31T23:59:59Z',
  '1899-01-01T00:00:00.000Z',
  '00000000-0000-0000-0000-000000000000',
  'ﷺ'.repeat(50),
  '👩🏽‍🔧',
]

/**
 * Requests made of good ones with one thing wrong, or of nothing but rubbish: none may be answered by an error of ours.
 */
export async function fuzz({ url, shop }: Rig, most: number, seed: number): Promise<void> {
  const random = rng(seed)
  const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!
  const number = await shop.take(`fz${seed % 1000}`)
  const owner = await signIn(url, shop.code, 'Ishbel')
  const by = await shop.person('Ishbel')
  const good: Record<string, () => unknown> = {
    'jobs/[number]/events.post.ts': () => ({
      entries: [
        entryOf(by, { kind: 'turn', screw: 'barrel', sixteenths: 2 }),
        entryOf(by, { kind: 'shift', from: 3, to: 4, outcome: 'clean' } as never),
      ],
    }),
    'jobs/[number]/details.post.ts': () => ({
      id: randomUUID(),
      basedOn: 1,
      complaint: 'other',
      tag: '55',
      promisedAt: new Date().toISOString(),
    }),
    'jobs/[number]/notes.post.ts': () => ({ text: 'a note' }),
    'jobs/[number]/hand-back.post.ts': () => ({ id: randomUUID(), basedOn: 1, how: 'proven', fault: null }),
    'jobs/[number]/reopen.post.ts': () => ({ id: randomUUID(), basedOn: 1 }),
    'jobs/[number]/same-bike.post.ts': () => ({ id: randomUUID(), basedOn: 1, bike: randomUUID() }),
    'jobs/index.post.ts': () => ({
      customer: { name: 'A', contact: '' },
      bike: { name: 'B', frameNumber: '' },
      tag: 'F1',
      promisedAt: new Date().toISOString(),
      complaint: 'c',
      parts: null,
      sameParts: false,
    }),
    'session/person.post.ts': () => ({ person: by, pin: '0000' }),
    'shop/schools.post.ts': () => ({ of: 'shop', choice: { gap: 'smallest-clear' } }),
    'cables/stock/index.post.ts': () => ({ kind: 'shift', lengthMm: 900, roll: false, label: '' }),
    'cables/cut.post.ts': () => ({ cuts: [], pieces: [] }),
    'standards/values.post.ts': () => ({
      claims: [{ kind: 'derailleur', entry: 'r14-10', figure: 'ratio', value: 1.4, note: '' }],
    }),
    'bench/bare.post.ts': () => ({ id: randomUUID() }),
  }
  const spoil = (value: unknown): unknown => {
    if (typeof value !== 'object' || value === null || random() < 0.15) return pick(NASTY)
    const keys = Object.keys(value)
    if (!keys.length || random() < 0.1) return { ...value, extra: pick(NASTY) }
    const key = pick(keys)
    const copy = structuredClone(value) as Record<string, unknown>
    if (random() < 0.15) return Object.fromEntries(Object.entries(copy).filter(([k]) => k !== key))
    copy[key] = random() < 0.6 ? spoil(copy[key]) : pick(NASTY)
    return copy
  }
  let tries = 0
  const statuses = new Map<number, number>()
  const bad: string[] = []
  const one = async (): Promise<void> => {
    const nastyId = () =>
      random() < 0.5 ? randomUUID() : encodeURIComponent(wellFormed(String(pick(NASTY))).slice(0, 60) || 'x')
    const nastyNumber = () =>
      random() < 0.6 ? number : encodeURIComponent(wellFormed(String(pick(NASTY))).slice(0, 40) || 'x')
    const r = pick(routesWith({ number: nastyNumber(), id: nastyId(), tag: nastyId() }).filter(x => !APART.has(x.file)))
    // nobody is to be let go, nor signed out, while it goes on
    if (['shop/people/[id]/change.post.ts', 'shop/people/[id]/secrets.post.ts'].includes(r.file) && random() < 0.9)
      return
    const query =
      random() < 0.3
        ? `?${pick(['q', 'as', 'after', 'of', 'paper', 'take', 'kind', 'standard'])}=${encodeURIComponent(wellFormed(String(pick(NASTY))).slice(0, 300))}`
        : ''
    let body: unknown
    if (r.method === 'POST') {
      body = spoil((good[r.file] ?? (() => ({ name: 'x' })))())
      if (random() < 0.05) body = pick(['{', '[]', '"', 'null', '\u0000', '{"a":1e999}'])
      if (body === null) body = 'null'
    }
    const answer = await owner.send(r.method, `${r.path}${query}`, body)
    const text = await answer.text()
    tries++
    statuses.set(answer.status, (statuses.get(answer.status) ?? 0) + 1)
    // 503 says that too much waits: none of this is that much
    if (answer.status >= 500)
      bad.push(
        `${r.method} ${r.path}${query} ${answer.status} ${JSON.stringify(body)?.slice(0, 120)} ${text.slice(0, 80)}`,
      )
  }
  await Promise.all(
    Array.from({ length: 6 }, async () => {
      while (tries < most) await one()
    }),
  )
  found({
    what: `requests with something wrong (seed ${seed})`,
    tries,
    bad: bad.length,
    told: bad.length
      ? bad.slice(0, 4).join(' | ')
      : `answers: ${[...statuses]
          .sort(([a], [b]) => a - b)
          .map(([s, n]) => `${s} ${n}`)
          .join(', ')}`,
  })
}

/** An address cannot hold half of a character. */
const wellFormed = (text: string): string => text.toWellFormed()
