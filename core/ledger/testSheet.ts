import type { Sheet } from './sheet'

/** A sheet of a small job, for tests of what is made of sheets. */
export const TEST_SHEET: Sheet = {
  modelVersion: 3,
  closedAt: '2026-11-20T15:00:00.000Z',
  by: 'p1',
  how: 'proven',
  fault: null,
  parts: null,
  drivetrain: '10 speeds',
  numbers: [],
  found: [{ what: 'Judged to be', figure: 'tension 92 %', plain: 'The gear cable was out of adjustment.' }],
  done: [
    { what: 'Barrel', figure: '1/2 out, net', plain: 'Gear cable adjusted.' },
    { what: 'H screw', figure: '1/8 in, net', plain: 'Limit of the derailleur’s travel set.' },
    { what: 'L screw', figure: '1/8 in, net', plain: 'Limit of the derailleur’s travel set.' },
    { what: 'Cassette renewed', figure: '', plain: 'Cassette renewed.', used: ['Cassette'] },
  ],
  left: [{ what: 'Every gear clean', figure: '97 % sure' }],
  netSixteenths: { barrel: 8, H: 2, L: 2, B: 0 },
  barrelSixteenths: 32,
  barrelAssumed: false,
  proofs: {
    front: { holds: true, by: 'p1', at: '2026-11-20T14:00:00.000Z', failed: null },
    rear: null,
  },
  right: 0.97,
  recallOn: '2026-12-04',
  frictionMm: null,
  settle: null,
  runs: [],
  hub: null,
  brakes: [],
  tell: ['Lay the bike on its other side.'],
  belief: {},
  work: 10,
}
