import { randomUUID } from 'node:crypto'

/** A new id; in one place so that the demo and tests may pass their own. */
export const newId = (): string => randomUUID()
