import { askBeside } from '#core/bench/sideBench'
import { measureFromSide } from '#core/sight/fromSide'
import { teethFinder, tipsBlurPx } from '#core/sight/tipsBeside'
for (let seed = 91000; seed < 91004; seed++) {
  const { ask, look } = askBeside(seed)
  teethFinder(look)(ask)
  let looks = 0
  const f = teethFinder((a, b) => (looks++, look(a, b)))
  const t = [performance.now()]
  f({ ...ask, pulleyTips: ask.pulleyTips.slice(0, 2) }); t.push(performance.now()); const l1 = looks
  const b = f(ask); t.push(performance.now()); const l2 = looks
  measureFromSide({ ...ask, besides: b }); t.push(performance.now())
  tipsBlurPx(ask, look); t.push(performance.now())
  console.log(seed, 'looks', l1, l2 - l1, 'ms ahead, then, measure, blur', t.slice(1).map((x, i) => (x - t[i]!).toFixed(0)).join(' '))
}
