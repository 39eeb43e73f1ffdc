import { CAUSES } from '#core/response/causes'
import { spawn } from 'node:child_process'
import { availableParallelism } from 'node:os'
import { fileURLToPath } from 'node:url'
import { AS_MODELLED, UNLIKE, type Physics } from '#core/bench/physics'
import { adviceStrategy, play, type Played, type Strategy } from '#core/bench/play'
import { THUMBS } from '#core/bench/thumb'
import { WRONG_LOOKS, type BrakeBench } from '#core/bench/brake'
import { reportBrakes } from './compareBrake'
import { learningPart, reportLearning } from './compareLearning'
import { reportThread, threadPart, type ThreadScore } from './compareThread'
import type { LearningScore } from '#core/bench/learning'
import { compareHearing, compareSight } from './compareSenses'
import { compareSettling } from './compareSettling'
import { HUB_WRONG_LOOKS, type UnlikeHubBench } from '#core/bench/hubUnlike'
import { reportHubs, reportUnlikeHubs } from './compareHub'
import { limitPart, reportLimit, wonWithin, type LimitLine } from './compareLimit'
import { FRONT_BENCHES, frontPart, reportFront, type FrontLine } from './compareFront'
import { HUB_BENCHES, type HubBench } from '#core/bench/hub'
import { byTenths, percent, quantile, sum } from './figures'

/**
 * Strategies on the same seeded bikes: npm run compare [bikes] [first seed] [bench]. Benches of the rear: model, and
 * the unlike ones `thresholds`, `friction`, `reports` (10 % wrong reports, stops wound out); of the front: see
 * compareFront.ts. Not a test; the table is the result.
 */
const BENCHES: Record<string, { physics: Physics; woundOut?: boolean }> = {
  model: { physics: AS_MODELLED },
  thresholds: { physics: UNLIKE.thresholds },
  friction: { physics: UNLIKE.friction },
  reports: { physics: UNLIKE.reports, woundOut: true },
}
const STRATEGIES: readonly Strategy[] = [
  adviceStrategy,
  ...THUMBS.map(rule => ({ id: rule.id, is: 'thumb' as const, rule })),
]

const LEARNING = 'learning'
const LIMIT = 'limit'
const THREAD = 'thread'
type Line = { strategy: string; played: Played }

async function inProcesses<T>(bikes: number, first: number, bench: string): Promise<T[]> {
  const count = Math.min(availableParallelism(), bikes)
  const parts = await Promise.all(
    Array.from(
      { length: count },
      (_, i) =>
        new Promise<string>((done, failed) => {
          const child = spawn(
            process.execPath,
            [
              '--import',
              'tsx',
              fileURLToPath(import.meta.url),
              'part',
              String(bikes),
              String(first),
              bench,
              String(i),
              String(count),
            ],
            { stdio: ['ignore', 'pipe', 'inherit'] },
          )
          let out = ''
          child.stdout.on('data', chunk => {
            out += String(chunk)
          })
          child.on('error', failed)
          child.on('exit', code => (code === 0 ? done(out) : failed(new Error(`part ${i} ended with ${code}`))))
        }),
    ),
  )
  return parts.flatMap(p =>
    p
      .split('\n')
      .filter(Boolean)
      .map(line => JSON.parse(line) as T),
  )
}

/** Every `count`th seed, for one of so many processes. */
const seeds = (first: number, bikes: number, index: number, count: number): number[] =>
  Array.from({ length: bikes }, (_, i) => first + i).filter((_, i) => i % count === index)

function part(bikes: number, first: number, bench: string, index: number, count: number): void {
  if (bench === THREAD) return threadPart(seeds(first, bikes, index, count))
  if (bench === LIMIT) return limitPart(seeds(first, bikes, index, count))
  if (bench === LEARNING) return learningPart(seeds(first, bikes, index, count))
  if (bench in FRONT_BENCHES) return frontPart(seeds(first, bikes, index, count), bench)
  const { physics, woundOut } = BENCHES[bench]
  for (const seed of seeds(first, bikes, index, count))
    for (const strategy of process.env.OCHO_ONLY === 'advice' ? [adviceStrategy] : STRATEGIES)
      console.log(
        JSON.stringify({
          strategy: strategy.id,
          played: play(seed, strategy, physics, {
            woundOut,
            calibrate: strategy.is === 'advice' && bench === 'model',
            passes: process.env.OCHO_PASSES === '1',
          }),
        } satisfies Line),
      )
}

function report(bench: string, lines: Line[]): void {
  const of = (id: string) =>
    lines
      .filter(l => l.strategy === id)
      .map(l => l.played)
      .sort((a, b) => a.seed - b.seed)
  const ours = of(adviceStrategy.id)
  const n = ours.length
  console.log(`\nbench "${bench}", ${n} bikes`)
  console.table(
    STRATEGIES.filter(s => of(s.id).length).map(({ id }) => {
      const them = of(id)
      const won = them.filter(p => p.won)
      const both = them.filter((p, i) => p.won && ours[i].won)
      const ratio =
        sum(
          ours.filter((p, i) => p.won && them[i].won),
          p => p.cost,
        ) / sum(both, p => p.cost)
      return {
        strategy: id,
        won: percent(won.length, n),
        'right at the end': percent(
          sum(them, p => p.right),
          n,
        ),
        'needless per 100': ((100 * sum(them, p => p.needless)) / n).toFixed(1),
        'off the largest': sum(them, p => p.thrown.largest),
        'off the smallest': sum(them, p => p.thrown.smallest),
        'worse turns per bike': (sum(them, p => p.worse) / n).toFixed(2),
        'cost p50': quantile(
          won.map(p => p.cost),
          0.5,
        ),
        'cost p90': quantile(
          won.map(p => p.cost),
          0.9,
        ),
        'touches p50': quantile(
          won.map(p => p.touches),
          0.5,
        ),
        'touches p90': quantile(
          won.map(p => p.touches),
          0.9,
        ),
        'Ocho cost ÷ its, both won': ratio.toFixed(2),
      }
    }),
  )
  console.log('won, of all bikes, in so many touches or fewer')
  console.table([{ strategy: adviceStrategy.id, ...wonWithin(ours) }])
  const done = ours.filter(p => p.saidDone)
  const stated = sum(done, p => p.stated ?? 0) / done.length
  console.log(
    `when it said done: right stated ${stated.toFixed(3)}, true ${(sum(done, p => p.right) / done.length).toFixed(3)}`,
  )
  const lost = ours.filter(p => !p.won)
  console.log(
    `lost: ${sum(lost, p => p.needless > 0)} by a needless part, ${sum(lost, p => p.saidDone && !p.right)} said done and not right, ${sum(lost, p => !p.saidDone)} given up or spent`,
  )
  const calls = ours.flatMap(p => p.calls)
  if (calls.length) {
    console.log('stated − true by tenths of what was stated (· fewer than 200 calls)')
    console.table({
      right: byTenths(calls.map(c => c.right)),
      ...Object.fromEntries(CAUSES.map(c => [c, byTenths(calls.map(x => x.causes[c]))])),
    })
  }
  if (process.env.OCHO_LOST)
    console.log(lost.map(p => `${p.seed}${p.needless ? 'n' : p.saidDone ? 'd' : 'g'}`).join(' '))
}

async function main(): Promise<void> {
  const [mode, ...rest] = process.argv.slice(2)
  if (mode === 'part') return part(Number(rest[0]), Number(rest[1]), rest[2], Number(rest[3]), Number(rest[4]))
  if (mode === 'settling') return console.log(compareSettling(Number(rest[0] ?? 20261128)))
  if (mode === 'sight') return compareSight(Number(rest[0] ?? 40), Number(rest[1] ?? 20_000))
  if (mode === 'hearing') return compareHearing(Number(rest[0] ?? 200), Number(rest[1] ?? 20_000))
  if (mode === LEARNING) {
    const [shops, from] = [Number(rest[0] ?? 8), Number(rest[1] ?? 4000)]
    return reportLearning(await inProcesses<LearningScore>(shops, from, LEARNING), from)
  }
  if (mode === THREAD) {
    const [bikes, from] = [Number(rest[0] ?? 200), Number(rest[1] ?? 990_000)]
    return reportThread(await inProcesses<ThreadScore>(bikes, from, THREAD), from)
  }
  if (mode === LIMIT) {
    const [bikes, from] = [Number(rest[0] ?? 200), Number(rest[1] ?? 976_000)]
    return reportLimit(await inProcesses<LimitLine>(bikes, from, LIMIT), from)
  }
  const bikes = Number(mode ?? 200)
  const first = Number(rest[0] ?? 1000)
  if (!Number.isInteger(bikes) || bikes < 1 || !Number.isInteger(first))
    throw new Error('npm run compare [bikes] [first seed] [bench]: whole numbers, and one of the benches')
  const all = [
    ...Object.keys(BENCHES),
    ...Object.keys(FRONT_BENCHES),
    ...Object.keys(WRONG_LOOKS),
    ...Object.keys(HUB_BENCHES),
    ...Object.keys(HUB_WRONG_LOOKS),
  ]
  const which = rest[1] ? [rest[1]] : all
  for (const bench of which) {
    if (!all.includes(bench)) throw new Error(`there is no bench ${bench}: one of ${all.join(', ')}`)
    if (bench in WRONG_LOOKS) reportBrakes(bikes, first, bench as BrakeBench)
    else if (bench in HUB_WRONG_LOOKS) reportUnlikeHubs(bikes, first, bench as UnlikeHubBench)
    else if (bench in HUB_BENCHES) reportHubs(bikes, first, bench as HubBench)
    else if (bench in FRONT_BENCHES) reportFront(bench, await inProcesses<FrontLine>(bikes, first, bench))
    else report(bench, await inProcesses<Line>(bikes, first, bench))
  }
}
await main()
