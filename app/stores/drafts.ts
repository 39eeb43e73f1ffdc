/** Where a tab keeps what was typed at the door; it goes with sign-out, and with the tab. */
export const DOOR_DRAFT = 'ocho-door'

/** At sign-out: nothing of a customer stays in the tab. */
export function dropDrafts(): void {
  const tab = globalThis.sessionStorage as Storage | undefined
  for (const key of Object.keys(tab ?? {})) if (key.startsWith(DOOR_DRAFT)) tab?.removeItem(key)
}
