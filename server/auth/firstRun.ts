import { timingSafeEqual } from 'node:crypto'

let done = false

/** The launcher gives a one-time code when there is no shop yet. */
export const firstRunOpen = (): boolean => Boolean(process.env.OCHO_FIRST_RUN_CODE) && !done

export function firstRunCodeMatches(code: string): boolean {
  const wanted = Buffer.from(process.env.OCHO_FIRST_RUN_CODE ?? '')
  const given = Buffer.from(code.trim())
  return wanted.length > 0 && wanted.length === given.length && timingSafeEqual(wanted, given)
}

export function closeFirstRun(): void {
  done = true
}
