import { differenceInDays } from 'date-fns'
import type { Learnt } from '#core/advice/learnt'
import { Habit } from '#core/habits/habit'
import { learntFor } from '#core/habits/learn'
import { FrameKind } from '#core/standards/frames'
import type { JobState } from '#core/ledger/reduce'
import type { Sheet } from '#core/ledger/sheet'
import { habitOf } from '#core/records/habitOf'
import type { ShopTx } from './connect'

/** So many of the latest jobs on rear derailleurs say what a shop's bikes are like: habits change. */
const LATEST = 200

type JobHere = { id: string; bike: string; known: string | null }

const frameOf = async (tx: ShopTx, shop: string, bike: string): Promise<FrameKind | null> => {
  const row = await tx
    .selectFrom('bike')
    .select('frame_kind')
    .where('shop', '=', shop)
    .where('id', '=', bike)
    .executeTakeFirstOrThrow()
  return FrameKind.nullable().catch(null).parse(row.frame_kind)
}

/** When a bike's gear cable was last renewed here before a day; null where it never was. */
export async function cableRenewed(tx: ShopTx, shop: string, bike: string, before: Date): Promise<Date | null> {
  const row = await tx
    .selectFrom('habit')
    .innerJoin('job', j => j.onRef('job.shop', '=', 'habit.shop').onRef('job.id', '=', 'habit.job'))
    .select('habit.at')
    .where('habit.shop', '=', shop)
    .where('job.bike', '=', bike)
    .where('new_cable', '=', true)
    .where('habit.at', '<', before)
    .orderBy('habit.at', 'desc')
    .executeTakeFirst()
  return row?.at ?? null
}

async function cableDays(tx: ShopTx, shop: string, bike: string, at: Date): Promise<number | null> {
  const renewed = await cableRenewed(tx, shop, bike, at)
  return renewed && differenceInDays(at, renewed)
}

/** Keeps what a closed job shows of the shop's bikes. */
export async function keepHabit(
  tx: ShopTx,
  shop: string,
  job: JobHere,
  state: JobState,
  sheet: Sheet,
  learnt: Learnt | null,
  at: Date,
): Promise<void> {
  const shows = habitOf(state, sheet, job.known !== null, learnt?.usual.mmPerTurnH)
  if (!shows) return
  await tx
    .insertInto('habit')
    .values({
      shop,
      job: job.id,
      at,
      frame: await frameOf(tx, shop, job.bike),
      cable_days: await cableDays(tx, shop, job.bike, at),
      back: job.known !== null,
      new_cable: state.rear.renewed.includes('cable'),
      found: shows.found,
      friction_mm: shows.frictionMm,
      stop_mm: shows.stop?.mean ?? null,
      stop_sd: shows.stop?.sd ?? null,
    })
    .onConflict(c => c.columns(['shop', 'job']).doNothing())
    .execute()
}

/** A job that is opened again shows nothing yet. */
export async function takeHabitBack(tx: ShopTx, shop: string, job: string): Promise<void> {
  await tx.deleteFrom('habit').where('shop', '=', shop).where('job', '=', job).execute()
}

/** Forgets what jobs showed, so that it can be written anew. */
export async function dropHabits(tx: ShopTx, shop: string): Promise<void> {
  await tx.deleteFrom('habit').where('shop', '=', shop).execute()
}

/** What the shop's latest closed jobs show, the newest first. */
export async function habitsOf(tx: ShopTx, shop: string): Promise<Habit[]> {
  const rows = await tx
    .selectFrom('habit')
    .select(['frame', 'cable_days', 'back', 'found', 'friction_mm', 'stop_mm', 'stop_sd'])
    .where('shop', '=', shop)
    .orderBy('at', 'desc')
    .limit(LATEST)
    .execute()
  return rows.map(r =>
    Habit.parse({
      frame: r.frame,
      cableDays: r.cable_days,
      back: r.back,
      found: r.found,
      frictionMm: r.friction_mm,
      stop: r.stop_mm === null || r.stop_sd === null ? null : { mean: r.stop_mm, sd: r.stop_sd },
    }),
  )
}

/** What the shop's closed jobs say of one bike that is here. */
export async function learntHere(tx: ShopTx, shop: string, job: Omit<JobHere, 'id'>, at = new Date()): Promise<Learnt> {
  return learntFor(await habitsOf(tx, shop), {
    frame: await frameOf(tx, shop, job.bike),
    cableDays: await cableDays(tx, shop, job.bike, at),
    back: job.known !== null,
  })
}
