import { HUB_BENCHES, playHub, playHubByOrder, seededHub, type HubBench, type HubPlayed } from '#core/bench/hub'
import { HUB_WAYS } from '#core/hub/kinds'
import { percent, sum } from './figures'

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
