import { CannotTakeIn } from '../db/jobs'
import { JobClosed, NoSuchJob } from '../db/ledger'
import { TooManyPhotos } from '../db/photos'
import { NoSuchCustomer, StillHere } from '../db/privacy'
import { MustStay } from '../db/sheets'
import { TooMuchAtOnce } from '../heavy/queue'
import { refuse } from './refuse'

/** Does work on a job, and says in its words what it could not be done for. Throws 404 or 409. */
export async function answering<T>(number: number, work: () => Promise<T>): Promise<T> {
  try {
    return await work()
  } catch (error) {
    if (error instanceof NoSuchJob) throw refuse(404, `There is no job ${number} here: look on the Floor`)
    if (error instanceof JobClosed || error instanceof MustStay || error instanceof CannotTakeIn)
      throw refuse(409, error.message, [{ field: error.field, message: error.message }])
    if (error instanceof TooManyPhotos) throw refuse(409, error.message)
    throw error
  }
}

/** The same for a customer. Throws 404 or 409. */
export async function answeringPrivacy<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work()
  } catch (error) {
    if (error instanceof NoSuchCustomer) throw refuse(404, error.message)
    if (error instanceof StillHere) throw refuse(409, error.message)
    throw error
  }
}

/** The same for what waits its turn. Throws 503 when too much waits already. */
export async function answeringHeavy<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work()
  } catch (error) {
    if (error instanceof TooMuchAtOnce) throw refuse(503, error.message)
    throw error
  }
}
