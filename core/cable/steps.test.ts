import { describe, expect, test } from 'vitest'
import { BRAKE_KINDS } from '../standards/brakeKinds'
import { CABLE_STEPS, runKindOf, stepName, type CableStep } from './stepNames'
import { nextStep, stepsOf } from './steps'
import { RUNS } from './housing'
import { cablesAfter, noCables } from './state'

const ids = (...of: Parameters<typeof stepsOf>) => stepsOf(...of).map(s => s.step)

// common practice, no source
describe('the steps of a run, by what hangs on it', () => {
  test('each step once, each with a way to do it, whatever hangs there', () => {
    for (const run of RUNS)
      for (const brake of [null, ...BRAKE_KINDS])
        for (const twin of [false, true]) {
          const of = stepsOf(run, { brake, twin })
          expect(new Set(of.map(s => s.step)).size).toBe(of.length)
          for (const s of of) expect(s.how.length, s.step).toBeGreaterThan(8)
        }
  })
  test('a coupling has no bolt, no tail and no cap; a cable joined to a chain no groove', () => {
    for (const step of ['groove', 'capped', 'redrawn'] as const) expect(ids('hub', { twin: true })).not.toContain(step)
    expect(ids('hub-second')).toEqual(ids('hub', { twin: true }))
    expect(ids('hub')).not.toContain('groove')
    expect(stepsOf('hub', { twin: true }).find(s => s.step === 'clamped')?.how).toMatch(/5 mm.*our reading/)
  })
  test('a release lever is closed before the clamp, where there is one', () => {
    for (const brake of ['dual-pivot', 'linear-pull', null] as const) {
      const order = ids('front-brake', { brake })
      expect(order.indexOf('released')).toBeLessThan(order.indexOf('clamped'))
      expect(order).toContain('released')
    }
    for (const brake of ['drum', 'roller', 'cable-disc'] as const)
      expect(ids('front-brake', { brake })).not.toContain('released')
    expect(ids('rear')).not.toContain('released')
  })
  test('tied while it is sized, tugged late and drawn anew, before it is bedded and cut', () => {
    for (const run of ['rear', 'front', 'rear-brake', 'hub'] as const) {
      const order = ids(run)
      const at = (s: CableStep) => order.indexOf(s)
      expect(at('sized')).toBeLessThan(at('cut'))
      expect(at('clamped')).toBeLessThan(at('redrawn'))
      expect(at('redrawn')).toBeLessThan(at('bedded'))
      expect(at('bedded')).toBeLessThan(at('capped'))
    }
  })
  test('barrels start as the kind wants: a dual-pivot out, a disc in', () => {
    const how = (brake: 'dual-pivot' | 'cable-disc') =>
      stepsOf('front-brake', { brake }).find(s => s.step === 'barrels')?.how
    expect(how('dual-pivot')).toContain('3 to 4 turns out')
    expect(how('cable-disc')).toContain('Fully in')
  })
  test('dry and greased are two schools of one step, and either counts', () => {
    expect(ids('rear')).toContain('dry')
    expect(ids('rear', { film: 'greased' })).toContain('greased')
    expect(ids('rear', { film: 'greased' })).not.toContain('dry')
    // as it was done wins over the school, and is not asked again
    expect(ids('rear', { film: 'dry' }, ['greased'])).toContain('greased')
    expect(ids('rear', { film: 'dry' }, ['greased'])).not.toContain('dry')
    const order = ids('rear')
    const upTo = order.slice(0, order.indexOf('dry'))
    expect(nextStep('rear', [])).toBe('old-out')
    expect(nextStep('rear', upTo)).toBe('dry')
    expect(nextStep('rear', [...upTo, 'greased'], { film: 'dry' })).toBe(order[upTo.length + 1])
    expect(nextStep('rear', order)).toBeNull()
  })
  test('every step has a name for the ledger on every run, old entries too', () => {
    for (const run of RUNS)
      for (const step of CABLE_STEPS) expect(stepName(runKindOf(run), step).length, `${run} ${step}`).toBeGreaterThan(5)
  })
  test('a wire fed again is drawn anew again', () => {
    const after = (...steps: CableStep[]) =>
      steps.reduce((s, step) => cablesAfter(s, { kind: 'cabled', run: 'rear', step }), noCables).cabled.rear
    expect(after('fed', 'clamped', 'redrawn', 'fed')).toEqual(['fed'])
    expect(after('fed', 'clamped', 'redrawn', 'clamped')).toEqual(['fed', 'clamped'])
  })
})
