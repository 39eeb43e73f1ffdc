/**
 * What keeps a camera or a microphone from being used, in words.
 * @param what how it is called; `instead`: what can be done without it
 */
export const mediaTrouble = (what: 'camera' | 'microphone', instead: string, name: string): string =>
  ({
    NotAllowedError: `The ${what} is not allowed here: allow it in the browser, or ${instead}`,
    /** A page that did not come over the shop's own secure address has none at all. */
    Insecure: `The browser gives a ${what} to secure pages only: open Ocho by its https address, or ${instead}`,
    /** What takes the sound could not be fetched. */
    AbortError: `The ${what} could not be started: reload the page, or ${instead}`,
    NotReadableError: `Another program holds the ${what}: close it, or ${instead}`,
  })[name] ?? `This tablet has no ${what}: ${instead}`
