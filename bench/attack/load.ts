import { backUp } from '../../ops/backup'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { rmSync } from 'node:fs'
import { entryOf, found, percentile, signIn, type Rig } from './rig'

/**
 * Taps while others ask for much: 25 sheets at once, a file of many rows looked at, and a backup. In milliseconds, p95.
 */
const LIMIT_MS = 100

export async function load({ url, shop, cluster }: Rig): Promise<void> {
  const owner = await signIn(url, shop.code, 'Ishbel')
  const by = await shop.person('Ishbel')
  const number = await shop.take('load-1')
  const tap = async () => {
    const start = performance.now()
    const answer = await owner.send('POST', `/api/jobs/${number}/events`, {
      entries: [entryOf(by, { kind: 'wheelOut', wheel: 'rear' })],
    })
    if (!answer.ok) throw new Error(`tap: ${answer.status}`)
    await answer.arrayBuffer()
    return performance.now() - start
  }
  for (let i = 0; i < 20; i++) await tap() // warm
  const sheetJob = await shop.take('load-2')
  for (let i = 0; i < 40; i++)
    await owner.send('POST', `/api/jobs/${sheetJob}/events`, {
      entries: [entryOf(by, { kind: 'turn', screw: 'barrel', sixteenths: 2 })],
    })
  const left = await owner.send('POST', `/api/jobs/${sheetJob}/hand-back`, {
    id: crypto.randomUUID(),
    basedOn: 41,
    how: 'unridable',
  })
  if (!left.ok) throw new Error(`hand-back: ${await left.text()}`)

  const csv = 'standard,figure,value\n' + ',,,,,,,,\n'.repeat(400_000) // 3.6 MB
  const file = join(tmpdir(), `ocho-attack-${process.pid}.backup`)
  const during = async (what: string, work: () => Promise<unknown>) => {
    const taps: number[] = []
    let busy = true
    const started = performance.now()
    const done = work().finally(() => (busy = false))
    const tapping = Promise.all(
      Array.from({ length: 4 }, async () => {
        while (busy) {
          taps.push(await tap())
          await new Promise(r => setTimeout(r, 25))
        }
      }),
    )
    await done
    await tapping
    const p95 = percentile(taps, 95)
    found({
      what: `taps’ p95 during ${what}`,
      tries: taps.length,
      bad: p95 > LIMIT_MS ? 1 : 0,
      told: `p95 ${p95.toFixed(0)} ms (limit ${LIMIT_MS}), worst ${Math.max(...taps).toFixed(0)} ms; it took ${((performance.now() - started) / 1000).toFixed(1)} s`,
    })
  }
  const sheets = (many = 25) =>
    Promise.all(
      Array.from({ length: many }, async () => {
        const answer = await owner.send('GET', `/api/jobs/${sheetJob}/sheet.pdf`)
        const bytes = Buffer.from(await answer.arrayBuffer())
        if (answer.ok && bytes.subarray(0, 4).toString() !== '%PDF') throw new Error('no PDF')
        if (!answer.ok && answer.status !== 503) throw new Error(`sheet: ${answer.status}`)
        return answer.status
      }),
    )
  const commas = () =>
    owner
      .send('POST', '/api/standards/import?take=look&kind=csv', csv, { 'content-type': 'text/csv' })
      .then(r => r.text())
  await during('nothing else (two seconds)', () => new Promise(r => setTimeout(r, 2_000)))
  await during('25 sheets at once', () => sheets())
  await during('90 sheets at once, more than may wait', async () => {
    const told = await sheets(90)
    if (!told.includes(503) || told.filter(s => s === 200).length < 30) throw new Error(`sheets: ${told.join(' ')}`)
  })
  await during('a file of 3.6 MB of commas', commas)
  await during('a backup', () => backUp(cluster, file, null))
  await during('all of these at once', () => Promise.all([sheets(), commas(), backUp(cluster, file, null)]))
  rmSync(file, { force: true })
}
