/** "Don't know", the answer to any look of any bench: it tells nothing, and takes nothing back that was seen. */
export const UNKNOWN = 'unknown'
