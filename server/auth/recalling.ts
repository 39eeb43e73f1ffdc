import { CannotRecall } from '../db/recalls'
import { refuse } from './refuse'

/** What the recall desk cannot do is refused in its words. */
export async function recalling<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work()
  } catch (error) {
    if (error instanceof CannotRecall)
      throw refuse(409, error.message, [{ field: error.field, message: error.message }])
    throw error
  }
}
