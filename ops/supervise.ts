/** What is kept running: `ended` resolves when it ended by itself, `again` starts it anew. */
export type Part = { name: string; ended(): Promise<string>; again(): Promise<void> }

/** So often in so long, and something is wrong that no start mends. */
export const MOST_STARTS = 10
export const WITHIN_MS = 5 * 60_000

/** The pause before a start, growing with how many there were lately: back within seconds, and never in a rush. */
export const pauseMs = (lately: number): number => Math.min(6_000, 200 * 2 ** lately)

/**
 * Starts a part again whenever it ends by itself, with one line each, until it is stopped on purpose.
 * @returns why it gave up; null when it was stopped
 */
export async function keepRunning(
  part: Part,
  how: {
    say(line: string): void
    stopping(): boolean
    now?: () => number
    sleep(ms: number): Promise<void>
  },
): Promise<string | null> {
  const now = how.now ?? Date.now
  const starts: number[] = []
  for (;;) {
    let words = await part.ended()
    for (;;) {
      if (how.stopping()) return null
      while (starts.length && now() - starts[0] > WITHIN_MS) starts.shift()
      if (starts.length >= MOST_STARTS)
        return `${part.name} ended ${MOST_STARTS} times in five minutes, the last time with: ${words}`
      const pause = pauseMs(starts.length)
      how.say(`${part.name} ended (${words}): started again in ${(pause / 1000).toFixed(1)} s`)
      await how.sleep(pause)
      if (how.stopping()) return null
      starts.push(now())
      try {
        await part.again()
        how.say(`${part.name} is back`)
        break
      } catch (error) {
        words = (error as Error).message
      }
    }
  }
}
