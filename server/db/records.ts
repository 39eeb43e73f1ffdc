import { differenceInCalendarDays } from 'date-fns'
import { keeping, type FaultFound, type RecordFigure } from '#core/chapter/records'
import { reduce, type JobState } from '#core/ledger/reduce'
import type { Sheet } from '#core/ledger/sheet'
import { standardOf } from '#core/rear/records'
import {
  COMEBACK,
  faultFigures,
  faultsOf,
  FRICTION,
  HELD_DAYS,
  RECORD_RULES,
  recordsOf,
  ROUNDS,
  standardsOf,
} from '#core/records/chapters'
import type { ShopTx } from './connect'
import { dropHabits, keepHabit } from './habits'
import { newId } from './ids'
import { recount } from './recount'
import { entriesAfter } from './ledger'

/** A visit leaves one row of this figure, whatever was measured: it counts bikes. */
export const VISIT = 'visit'
/** Figures that have a rule: what is told in a file. Bikes counted and faults stay inside. */
export const KEPT = RECORD_RULES.map(r => r.key)

/** Writes what a visit leaves for the records; the newest of each figure of a bike is the one that medians count. */
export async function keepRecords(
  tx: ShopTx,
  shop: string,
  job: { id: string; bike: string; comesBack: boolean },
  state: JobState,
  sheet: Pick<Sheet, 'frictionMm'> | null,
  at: Date,
): Promise<void> {
  // what was tried on a job that was none is no record
  if (state.job.handedBack?.how === 'cancelled') return
  const { frame_kind: frame } = await tx
    .selectFrom('bike')
    .select('frame_kind')
    .where('shop', '=', shop)
    .where('id', '=', job.bike)
    .executeTakeFirstOrThrow()
  const standards = standardsOf(state)
  const faults = faultsOf(state)
  const figures = [
    ...standards.map(standard => ({ standard, figure: VISIT, value: 1 })),
    ...recordsOf(state, job.comesBack),
    ...faultFigures(faults),
    ...ofVisit(state, sheet),
    ...(await comebacks(tx, shop, job.bike, faults, at)),
  ]
  if (!figures.length) return
  await tx
    .updateTable('record')
    .set({ latest: false })
    .where('shop', '=', shop)
    .where('bike', '=', job.bike)
    .where('latest', '=', true)
    .where(eb => eb.or(figures.map(f => eb.and([eb('standard', '=', f.standard), eb('figure', '=', f.figure)]))))
    .execute()
  await tx
    .insertInto('record')
    .values(figures.map(f => ({ shop, id: newId(), job: job.id, bike: job.bike, frame, at, origin: null, ...f })))
    .execute()
}

/** What the visit as a whole leaves of its drivetrain. */
function ofVisit({ rear }: JobState, sheet: Pick<Sheet, 'frictionMm'> | null): RecordFigure[] {
  const { keep, kept } = keeping()
  if (!rear.parts) return kept
  const standard = standardOf(rear.parts)
  keep(standard, FRICTION, sheet?.frictionMm)
  const rounds = rear.bench.filter(e => e.kind === 'turn' || e.kind === 'edge').length
  keep(standard, ROUNDS, rounds || null)
  return kept
}

async function comebacks(
  tx: ShopTx,
  shop: string,
  bike: string,
  faults: readonly FaultFound[],
  at: Date,
): Promise<RecordFigure[]> {
  // a run that settled is wound in once: that is the recall, not a comeback
  const wrong = [...new Set(faults.filter(f => f.fault !== 'tension').map(f => f.standard))]
  if (!wrong.length) return []
  const rows = await tx
    .selectFrom('record')
    .select(['standard', eb => eb.fn.max('at').as('at')])
    .where('shop', '=', shop)
    .where('bike', '=', bike)
    .where('figure', '=', VISIT)
    .where('standard', 'in', wrong)
    .where('at', '<', at)
    .groupBy('standard')
    .execute()
  return rows
    .map(r => ({ standard: r.standard, figure: COMEBACK, value: differenceInCalendarDays(at, r.at) }))
    .filter(r => r.value <= HELD_DAYS)
}

/** Takes a visit's records back, as its job is opened again; what the bike left before counts once more. */
export async function takeRecordsBack(tx: ShopTx, shop: string, job: string): Promise<void> {
  const gone = await tx.deleteFrom('record').where('shop', '=', shop).where('job', '=', job).returning('bike').execute()
  await recount(
    tx,
    shop,
    gone.map(g => g.bike),
  )
}

/** Forgets what visits left, so that it can be written anew; rows from files stay. */
export async function dropRecordsOfJobs(tx: ShopTx, shop: string): Promise<void> {
  await tx.deleteFrom('record').where('shop', '=', shop).where('job', 'is not', null).execute()
  await dropHabits(tx, shop)
}

/** Writes the records of closed jobs that have none: those handed back before records were kept. @returns how many */
export async function fillRecords(
  tx: ShopTx,
  shop: string,
  sheetOf: (job: string) => Promise<Sheet | null>,
): Promise<number> {
  const jobs = await tx
    .selectFrom('job')
    .select(['id', 'bike', 'known_job', 'closed_at'])
    .where('shop', '=', shop)
    .where('closed_at', 'is not', null)
    .where(eb =>
      eb.not(
        eb.exists(
          eb
            .selectFrom('record')
            .select('record.id')
            .whereRef('record.shop', '=', 'job.shop')
            .whereRef('record.job', '=', 'job.id'),
        ),
      ),
    )
    .orderBy('closed_at')
    .execute()
  for (const job of jobs) {
    const state = reduce(await entriesAfter(tx, shop, job.id, 0))
    const sheet = await sheetOf(job.id)
    await keepRecords(
      tx,
      shop,
      { id: job.id, bike: job.bike, comesBack: job.known_job !== null },
      state,
      sheet,
      job.closed_at!,
    )
    const here = { id: job.id, bike: job.bike, known: job.known_job }
    if (sheet) await keepHabit(tx, shop, here, state, sheet, null, job.closed_at!)
  }
  return jobs.length
}
