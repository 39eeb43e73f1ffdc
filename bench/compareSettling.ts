import { HELD_OUT, scoreSettling, SHOPS } from '#core/bench/scoreSettling'

/** Days lost when bikes are asked back by the forecast, beside the fixed fortnight. */
export function compareSettling(seed: number): string {
  const rows = [0, 5, 10, 30, 60].map(n => scoreSettling(n, seed))
  return [
    `Settling: ${SHOPS} simulated shops with a physics of their own, ${HELD_OUT} held-out runs each, seed ${seed}.`,
    'Days lost a bike: a day out of tune counts one, a day too soon half.',
    '',
    '| returns the shop has seen | asked back by the forecast | without asking how much it is ridden | after a fortnight | slack in the two thirds said |',
    '| ---: | ---: | ---: | ---: | ---: |',
    ...rows.map(
      r =>
        `| ${r.returns} | ${r.forecast.toFixed(1)} | ${r.unasked.toFixed(1)} | ${r.fortnight.toFixed(1)} | ${(100 * r.within).toFixed(0)} % |`,
    ),
  ].join('\n')
}
