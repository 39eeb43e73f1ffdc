import { describe, expect, test } from 'vitest'
import { advise } from '../advice/advise'
import type { PersonId } from '../chapter/ids'
import { telling } from '../chapter/testTold'
import type { LedgerEvent } from '../ledger/events'
import { mayAppend } from '../ledger/gates'
import { reduce } from '../ledger/reduce'
import { setupOfStandard } from '../response/testBikes'
import { rearFacts } from './facts'
import { fitHanger, fromTouchPoint } from './hanger'
import { headOfRear } from './heads'
import { headShort } from './headShort'
import { stockParts } from './typedParts'
import { TABLE_ONLY } from '../standards/inForce'

const told = telling<LedgerEvent>()
const stock = stockParts('r14-10')
/** A derailleur that moves a tenth too much for its shifter: no setting has every gear clean. */
const hopeless = { ...stock, derailleur: { ...stock.derailleur, standard: null, pullRatio: 1.6 } }
const arrived = (parts = stock) => told({ kind: 'arrived', parts })
const headOf = (...log: ReturnType<typeof told>[]) => headOfRear(reduce(log).rear)
const gauge = (acrossMm: number) => told({ kind: 'gauge', camberDeg: 0.6, toeDeg: 0, acrossMm })

describe('what heads every bench', () => {
  test('parts that cannot index, with the reason, until they are changed or waived by name', () => {
    expect(headOf(arrived())).toBeNull()
    const head = headOf(arrived(hopeless))
    expect(head).toMatchObject({ id: 'parts', waive: 'parts' })
    expect(head!.words).toMatch(/^Will not index: .* needs a pull ratio of/)
    const waived = told({ kind: 'waived', what: 'parts' })
    expect(headOf(arrived(hopeless), waived)).toBeNull()
    expect(headOf(arrived(hopeless), waived, told({ kind: 'undo', undoes: waived.id }))).toMatchObject({ id: 'parts' })
    expect(headOf(arrived(hopeless), told({ kind: 'parts', parts: stock }))).toBeNull()
    // chosen again, they are judged again
    expect(headOf(arrived(hopeless), waived, told({ kind: 'parts', parts: hopeless }))).toMatchObject({ id: 'parts' })
  })
  test('a lever without clicks has nothing to index', () => {
    expect(headOf(arrived({ ...hopeless, shifter: { ...hopeless.shifter, friction: true } }))).toBeNull()
  })
  // tolerances across the wheel: common practice, no source
  test('a hanger out of tolerance, until it is trued, renewed or waived; a levered one is gauged again', () => {
    expect(headOf(arrived(), gauge(1.5))).toBeNull()
    expect(headOf(arrived(), gauge(7))).toMatchObject({ id: 'hanger', at: 'hanger' })
    expect(headOf(arrived(), gauge(7), told({ kind: 'bend', hour: 6, tipMm: 2 }))!.words).toContain('gauge it again')
    expect(headOf(arrived(), gauge(7), told({ kind: 'bend', hour: 6, tipMm: 2 }), gauge(1))).toBeNull()
    expect(headOf(arrived(), gauge(7), told({ kind: 'replace', part: 'hanger' }))).toBeNull()
    const waived = told({ kind: 'waived', what: 'hanger' })
    expect(headOf(arrived(), gauge(7), waived)).toBeNull()
    expect(headOf(arrived(), gauge(7), waived, gauge(8))).toMatchObject({ id: 'hanger' })
  })
  test('what the sense check found comes before them, and nobody waives it', () => {
    const stiff = told({ kind: 'sensed', exceptions: ['stiff-link'], chainWearPercent: null })
    expect(headOf(arrived(hopeless), gauge(7), stiff)).toMatchObject({ id: 'sense', waive: null })
  })
  test('in a few words for a stand', () => {
    const short = (...log: ReturnType<typeof told>[]) => {
      const { rear } = reduce(log)
      return headShort(headOfRear(rear)!, rear)
    }
    expect(short(arrived(hopeless))).toBe('These parts cannot index')
    expect(short(arrived(), gauge(7))).toBe('The hanger first')
    expect(short(arrived(), told({ kind: 'sensed', exceptions: ['stiff-link'], chainWearPercent: null }))).toBe(
      'A stiff link',
    )
  })
  test('it is worked on as it is by a mechanic who signs, and the sheet says so', () => {
    const log = [arrived(hopeless)]
    const waived = told({ kind: 'waived', what: 'parts' })
    const by = waived.by as PersonId
    const hand = (role: 'trainee' | 'mechanic', fresh: boolean) =>
      mayAppend(log, reduce(log), waived, { person: by, role, fresh })
    expect(hand('trainee', true)?.message).toContain('A mechanic signs this')
    expect(hand('mechanic', false)?.message).toContain('PIN')
    expect(hand('mechanic', true)).toBeNull()
    const left = rearFacts(reduce([...log, waived]), null, TABLE_ONLY).left
    expect(left.find(f => f.what === 'Left as it is')?.figure).toContain('will not index')
  })
})

describe('a hanger without a gauge', () => {
  const causes = (hanger: 'straight' | 'leans-in') =>
    advise(setupOfStandard('r14-10'), reduce([arrived(), told({ kind: 'eyed', hanger })]).rear.bench).causes.hanger
  test('an eye tells bent from straight, less surely than a gauge', () => {
    const nobody = advise(setupOfStandard('r14-10'), []).causes.hanger
    expect(causes('straight')).toBeLessThan(nobody)
    expect(causes('leans-in')).toBeGreaterThan(nobody + 0.2)
    const gauged = advise(setupOfStandard('r14-10'), [{ kind: 'hanger', camberDeg: 2, toeDeg: 0 }]).causes.hanger
    expect(causes('leans-in')).toBeLessThan(gauged)
  })
  test('it heads the benches until a gauge says otherwise', () => {
    const eyed = told({ kind: 'eyed', hanger: 'leans-out' })
    expect(headOf(arrived(), eyed)!.words).toContain('leans out')
    expect(headOf(arrived(), eyed, gauge(1))).toBeNull()
    expect(headOf(arrived(), told({ kind: 'eyed', hanger: 'straight' }))).toBeNull()
  })
  test('an eye off by nothing is refused', () => {
    const none = { kind: 'hanger', camberDeg: 0, toeDeg: 0, sdDeg: 0 } as const
    expect(() => advise(setupOfStandard('r14-10'), [none])).toThrow('sdDeg')
  })
  test('readings from a touch point, closer − and wider +, give the same plane', () => {
    const gaps = [12, 3, 6, 9].map((hour, i) => ({ hour, gapMm: 60 + [2, 1, -2, -1][i]! }))
    const signed = gaps.map(r => ({ ...r, gapMm: r.gapMm - 60 }))
    const [a, b] = [fitHanger(gaps, 311), fitHanger(fromTouchPoint(signed), 311)]
    expect(b.camberDeg).toBeCloseTo(a.camberDeg, 12)
    expect(b.acrossMm).toBeCloseTo(a.acrossMm, 12)
    expect(fromTouchPoint(gaps)).toBe(gaps)
  })
})
