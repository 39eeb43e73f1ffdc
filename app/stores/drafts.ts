/** Where a tab keeps what was typed at the door; it goes with sign-out, and with the tab. */
export const DOOR_DRAFT = 'ocho-door'
/** And what was sent once and is not answered yet, each with the id it went under. */
const UNANSWERED = 'ocho-unanswered:'

const tab = () => globalThis.sessionStorage as Storage | undefined

/** The id that a request went under and goes under again until it is answered: after a reload as well. */
export function idUntilAnswered(what: string, newId: () => string): string {
  const kept = tab()?.getItem(UNANSWERED + what)
  if (kept) return kept
  const id = newId()
  try {
    tab()?.setItem(UNANSWERED + what, id)
  } catch {
    // the tab's room is full: asked again it would be refused or there twice, as it would without an id
  }
  return id
}
export const answered = (what: string): void => tab()?.removeItem(UNANSWERED + what)

/** At sign-out: nothing of a customer stays in the tab. */
export function dropDrafts(): void {
  for (const key of Object.keys(tab() ?? {}))
    if (key.startsWith(DOOR_DRAFT) || key.startsWith(UNANSWERED)) tab()?.removeItem(key)
}
