import { expect, test } from '@playwright/test'
import { fuzz } from '../bench/attack/fuzz'
import { matrix } from '../bench/attack/matrix'
import { races } from '../bench/attack/races'
import { findings, rig } from '../bench/attack/rig'

/* A taste of `npm run attack` at every change: routes by everybody, races, and requests with something wrong. */

test('nobody comes further than they may, what is asked at once is done once, and nothing wrong is our error', async () => {
  const r = await rig()
  try {
    await matrix(r)
    await races(r, 2)
    await fuzz(r, 300, Date.now() % 1_000_000)
  } finally {
    await r.end()
  }
  expect(findings.length).toBeGreaterThan(8)
  expect(findings.filter(f => f.bad > 0).map(f => `${f.what}: ${f.told}`)).toEqual([])
})
