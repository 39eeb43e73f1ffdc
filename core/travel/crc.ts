/** CRC-16/CCITT-FALSE (polynomial 0x1021, start 0xFFFF; `std` of the catalogue of CRCs, check value 29B1). */
export function crc16(bytes: Uint8Array): number {
  let crc = 0xffff
  for (const byte of bytes) {
    crc ^= byte << 8
    for (let i = 0; i < 8; i++) crc = crc & 0x8000 ? ((crc << 1) ^ 0x1021) & 0xffff : (crc << 1) & 0xffff
  }
  return crc
}
const utf8 = new TextEncoder()
/** A text's checksum as it stands in its last line. */
export const checksum = (text: string): string => crc16(utf8.encode(text)).toString(16).toUpperCase().padStart(4, '0')
