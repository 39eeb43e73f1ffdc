/** How a setup's text begins. */
export const SETUP_HEAD = 'OCHO SETUP'
/** Version of the open format; a later one is never guessed at. */
export const SETUP_VERSION = 1
