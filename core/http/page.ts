import { z } from 'zod'

/** Which open page a request comes from: news of what it did itself is not told to it. One device may have several open. */
export const PageId = z.uuid()
export const PAGE_HEADER = 'x-ocho-page'
