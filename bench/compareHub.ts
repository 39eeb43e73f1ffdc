import { HUB_BENCHES, playHub, playHubByOrder, seededHub, type HubBench, type HubPlayed } from '#core/bench/hub'
import { HUB_WAYS } from '#core/hub/kinds'
import { playUnlikeHub, type UnlikeHubBench } from '#core/bench/hubUnlike'
import { percent, quantile, sum } from './figures'

/** Hub faults: right cause and looks, against the usual order of looking played straight. */
export function reportHubs(hubs: number, first: number, bench: HubBench): void {
  const seeds = Array.from({ length: hubs }, (_, i) => first + i)
  const line = (strategy: string, way: string, all: readonly HubPlayed[]) => {
    const of = way === 'all' ? all : all.filter(p => p.way === way)
    return {
      strategy,
      way,
      hubs: of.length,
      'right cause': percent(
        sum(of, p => p.right),
        of.length,
      ),
      'by the first cure': percent(
        sum(of, p => p.right && p.tries === 1),
        of.length,
      ),
      'looks on average': (sum(of, p => p.checks) / of.length).toFixed(2),
      'cost on average': (sum(of, p => p.cost) / of.length).toFixed(2),
      'cures tried': (sum(of, p => p.tries) / of.length).toFixed(2),
    }
  }
  const [ours, order] = [seeds.map(s => playHub(s, bench)), seeds.map(s => playHubByOrder(s, bench))]
  console.log(`\nbench "${bench}", ${hubs} hubs, wrong looks ${HUB_BENCHES[bench].wrongLook}`)
  console.table(['all', ...HUB_WAYS].flatMap(w => [line('Ocho', w, ours), line('usual order', w, order)]))
  const faults = [...new Set(seeds.map(s => seededHub(s).is.fault))].sort()
  console.table(
    faults.map(fault => {
      const of = ours.filter(p => seededHub(p.seed).is.fault === fault)
      return {
        fault,
        hubs: of.length,
        'right cause': percent(
          sum(of, p => p.right),
          of.length,
        ),
      }
    }),
  )
}

/** Hubs unlike the diagnosis: the right cause first, solved, healthy ones confirmed, given up, stated against true. */
export function reportUnlikeHubs(hubs: number, first: number, bench: UnlikeHubBench): void {
  const all = Array.from({ length: hubs }, (_, i) => playUnlikeHub(first + i, bench))
  console.log(`\nbench "${bench}", ${hubs} hubs`)
  console.table(
    ['all', ...HUB_WAYS].map(way => {
      const of = way === 'all' ? all : all.filter(p => p.way === way)
      const healthy = of.filter(p => !p.hidden.length)
      const share = (is: (p: (typeof all)[number]) => boolean, list = of) => percent(sum(list, is), list.length)
      return {
        way,
        hubs: of.length,
        'right cause first': share(p => p.right),
        solved: share(p => p.solved),
        'healthy confirmed': share(p => p.right, healthy),
        'given up': share(p => p.gaveUp),
        'false "nothing wrong"': sum(of, p => p.hidden.length > 0 && p.first === 'none'),
        'looks to the first cause': (sum(of, p => p.looks) / of.length).toFixed(2),
      }
    }),
  )
  const looks = all.filter(p => !p.hidden.length).map(p => p.looks)
  console.log(
    `looks at a healthy hub: ${quantile(looks, 0.5)} p50, ${quantile(looks, 0.9)} p90, ${(sum(looks, x => x) / looks.length).toFixed(1)} on average`,
  )
  const surest = all.filter(p => p.stated >= 0.9)
  console.log(
    `first cause stated at 0.9 or more: ${surest.length}, ${(sum(surest, p => p.stated) / surest.length).toFixed(3)} on average, true ${(sum(surest, p => p.right) / surest.length).toFixed(3)}`,
  )
}
