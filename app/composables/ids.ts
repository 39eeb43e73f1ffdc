/** A version 4 UUID. `crypto.randomUUID` is missing on plain HTTP; `getRandomValues` is not. */
export function newUuid(): string {
  const b = crypto.getRandomValues(new Uint8Array(16))
  b[6] = (b[6] & 0x0f) | 0x40
  b[8] = (b[8] & 0x3f) | 0x80
  const hex = [...b].map(x => x.toString(16).padStart(2, '0')).join('')
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`
}

/** This open page, as the server is told of it. */
export const THIS_PAGE = newUuid()
