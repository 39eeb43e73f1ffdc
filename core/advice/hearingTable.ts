import { WRONG_REPORTS } from '../response/parameters'
import { HEARD, arrivalChances, reportedChance, type Arrival, type Heard } from '../response/heard'

/**
 * Log chance of a report over error and sharpness, tabulated: the filter asks for it a hundred thousand times a call.
 * Linear between grid points; clamped outside, where every outcome but one is a wrong report.
 */
export type HearingTable = Float32Array

const Z_FROM = -1.6
const Z_STEP = 0.02
const Z_COUNT = 161
const Q_FROM = -0.6
const Q_STEP = 0.06
const Q_COUNT = 21

const kept = new Map<string, Record<Heard, HearingTable>>()

/**
 * The table of one report for one kind of arrival by a usual ear, or one that errs so often; made on first use, the
 * same for every bike.
 */
export const hearingTable = (heard: Heard, arrival: Arrival, wrongReports = WRONG_REPORTS): HearingTable =>
  allTables(arrival, nearestEar(wrongReports))[heard]

/** Ears are told apart so finely: each has tables of its own. */
const EARS = [0.01, 0.02, 0.035, WRONG_REPORTS, 0.08, 0.12, 0.17, 0.25] as const
export const nearestEar = (wrongReports: number): number =>
  EARS.reduce((a, b) => (Math.abs(b - wrongReports) < Math.abs(a - wrongReports) ? b : a))

/** All reports of an arrival are tabulated in one go: their chances come together. */
function allTables(arrival: Arrival, ear: number = WRONG_REPORTS): Record<Heard, HearingTable> {
  const key = `${arrival.end} ${arrival.inward} ${arrival.alreadyThere} ${ear}`
  let tables = kept.get(key)
  if (!tables) kept.set(key, (tables = build(arrival, ear)))
  return tables
}

function build(arrival: Arrival, ear: number): Record<Heard, HearingTable> {
  const tables = Object.fromEntries(HEARD.map(h => [h, new Float32Array(Z_COUNT * Q_COUNT)])) as Record<
    Heard,
    HearingTable
  >
  for (let iq = 0; iq < Q_COUNT; iq++)
    for (let iz = 0; iz < Z_COUNT; iz++) {
      const chances = arrivalChances(Z_FROM + iz * Z_STEP, arrival, Math.exp(Q_FROM + iq * Q_STEP))
      for (const heard of HEARD) tables[heard][iq * Z_COUNT + iz] = Math.log(reportedChance(chances[heard], ear))
    }
  return tables
}

/** Makes the tables that any bike asks for, before one does. */
export function prepareTables(): void {
  for (const end of ['smallest', 'largest', null] as const)
    for (const inward of [true, false])
      if (!(end === 'smallest' && inward) && !(end === 'largest' && !inward))
        allTables({ end, inward, alreadyThere: false })
}

/** @param z error in pitches less asymmetry @param lnSharpness natural logarithm of the bike's sharpness */
export function lookUp(table: HearingTable, z: number, lnSharpness: number): number {
  let fz = (z - Z_FROM) / Z_STEP
  if (!(fz > 0)) fz = 0
  else if (fz > Z_COUNT - 1.001) fz = Z_COUNT - 1.001
  let fq = (lnSharpness - Q_FROM) / Q_STEP
  if (!(fq > 0)) fq = 0
  else if (fq > Q_COUNT - 1.001) fq = Q_COUNT - 1.001
  const iz = fz | 0
  const iq = fq | 0
  const at = iq * Z_COUNT + iz
  const rz = fz - iz
  const rq = fq - iq
  const low = table[at] + rz * (table[at + 1] - table[at])
  const high = table[at + Z_COUNT] + rz * (table[at + Z_COUNT + 1] - table[at + Z_COUNT])
  return low + rq * (high - low)
}

/** Every outcome that can be reported at an arrival, with its table. */
export function tablesOf(arrival: Arrival, ear: number): { heard: Heard; table: HearingTable }[] {
  return HEARD.filter(h => h !== 'off' && h !== 'skips').map(heard => ({
    heard,
    table: hearingTable(heard, arrival, ear),
  }))
}
