import { awayWords } from '../db/away'

/**
 * What an error is answered with that nobody threw on purpose: 503 where the database does not answer at this moment,
 * which a page takes for being offline; 400 for what no field refused and no column can hold, so that what was sent
 * with it is asked again without it. Said in the server's log; null for what is our own fault.
 * @param asked the address, for the log
 */
export function answerOf(error: unknown, asked: string): { status: 400 | 503; message: string } | null {
  const said = error instanceof Error ? error.message : String(error)
  if (/^22/.test((error as { code?: string } | undefined)?.code ?? '')) {
    console.error(`past every field: ${asked}: ${said}`)
    const message = 'There is a figure or a character in it that cannot be kept: put it right and try again'
    return { status: 400, message }
  }
  const away = awayWords(error)
  if (away === null) return null
  console.error(`database away: ${said}`)
  return { status: 503, message: away }
}
