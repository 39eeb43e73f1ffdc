import QRCode from 'qrcode'

/**
 * How much of a square may be lost: a smear (`M`, a seventh), a greasy thumb on a paper that is handed about (`Q`, a
 * quarter).
 */
type Lost = 'M' | 'Q'
/** A square code, `std` ISO/IEC 18004. */
export const squareOf = (text: string, lost: Lost = 'M'): QRCode.QRCode =>
  QRCode.create(text, { errorCorrectionLevel: lost })

/** The square code as a drawing: modules as unit squares, four of quiet around them, as ISO/IEC 18004 asks. */
export function squareSvg(text: string, lost: Lost = 'M'): string {
  const { modules } = squareOf(text, lost)
  const { size } = modules
  let path = ''
  for (let y = 0; y < size; y++)
    for (let x = 0; x < size; x++) if (modules.get(y, x)) path += `M${x + 4} ${y + 4}h1v1h-1z`
  const box = size + 8
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${box} ${box}"><rect width="${box}" height="${box}" fill="#fff"/><path d="${path}" fill="#000"/></svg>`
}
