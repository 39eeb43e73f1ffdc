import { z } from 'zod'

/**
 * Which open page a request comes from: news of what it did itself is not told to it. One device may have several open.
 */
export const PageId = z.uuid()
export const PAGE_HEADER = 'x-ocho-page'
/**
 * Of which shop the page is that asks, by its code: another shop signed in on the same tablet since is told nothing of
 * it.
 */
export const SHOP_HEADER = 'x-ocho-shop'
/**
 * What is asked, by an id of its own that stays as long as its answer is lost: asked again it is done once.
 */
export const REQUEST_HEADER = 'x-ocho-request'
/** Said with a 401 when this device was signed out by somebody else, so that it forgets what it keeps. */
export const REVOKED = 'revoked'
/** The field named where an owner's act asks for the password once more. */
export const CONFIRM = 'confirm'
