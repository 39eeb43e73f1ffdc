import type { Page } from '@playwright/test'
import { passClicks, type SimulatedBench } from '#core/bench/bench'
import type { Move } from '#core/advice/contract'
import { degrees } from '#core/quantity/angle'
import { settled } from './shop'

/** Gap at a place of the clock for a simulated hanger, mm, as a caliper at the tip would read it. */
export const gapAt = (bench: SimulatedBench, hour: number, radiusMm = 311): string =>
  (60 + radiusMm * bench.hidden.camberTan * Math.cos((hour * Math.PI) / 6)).toFixed(1)

/** The move as the page would record it, read from what it says. */
async function advisedTurn(page: Page): Promise<Extract<Move, { do: 'turn' }>> {
  const text = await page.locator('[data-test=move]').innerText()
  const amount = /(?:(\d+) )?(?:(\d+)\/(\d+))?\s*turns?/.exec(text.replace(/\n/g, ' '))!
  const turns = Number(amount[1] ?? 0) + (amount[2] ? Number(amount[2]) / Number(amount[3]) : 0)
  const screw = /^([HL]) screw/.exec(text)?.[1] as 'H' | 'L' | undefined
  const out = / out/.test(text.split('\n')[0])
  return { do: 'turn', screw: screw ?? 'barrel', turns: (screw ? !out : out) ? turns : -turns }
}

/**
 * Does on the rear bench page what it advises, with what a simulated bike lets a mechanic see and hear, until it says
 * stop or, having said so, the move `until` was done. @returns the kinds of moves done, in order
 * @param touched told of every touch; stops are then told in half millimetres, as an eye sees them
 */
export async function followAdvice(
  page: Page,
  bench: SimulatedBench,
  until?: string,
  touched?: () => void,
): Promise<string[]> {
  const done: string[] = []
  const tap = async (selector: string) => {
    touched?.()
    await page.locator(selector).click()
  }
  for (let round = 0; round < 70; round++) {
    await settled(page)
    const asked = await page.evaluate(() => performance.getEntriesByName('advice').length)
    const move = await page.locator('[data-test=move]').innerText()
    const accept = async () => {
      // dead until the move was there to be seen
      await tap('[data-test=accept][aria-disabled=false]')
    }
    if (move.includes('Stop here')) return [...done, 'done']
    if (move.includes('L stop') || move.includes('H stop')) {
      const at = move.includes('L stop') ? 'L' : 'H'
      const seen = bench.perform({ do: 'sight', at })!
      const half = (e: typeof seen) => Math.round(2 * ('offsetMm' in e ? e.offsetMm : 0)) / 2
      if (touched) {
        const both = half(seen) === 0 && (await page.locator('[data-test=both-in-line]').count()) > 0
        const other = both ? bench.perform({ do: 'sight', at: 'H' })! : null
        done.push(`sight ${at}`)
        // H that is not in line is looked at again when it is asked for
        await tap(
          other && half(other) === 0
            ? '[data-test=both-in-line][aria-disabled=false]'
            : `[data-test="figure-${Math.max(-1.5, Math.min(1.5, half(seen)))}"]`,
        )
        await page.waitForFunction(n => performance.getEntriesByName('advice').length > n, asked)
        continue
      }
      await page.locator('[data-test=figure-typed]').fill(String('offsetMm' in seen ? seen.offsetMm : 0))
      await page.getByRole('button', { name: 'Note it' }).click()
      done.push(`sight ${at}`)
    } else if (move.includes('Measure the pulley')) {
      const seen = bench.perform({
        do: 'offset',
        click: bench.setup.teeth.indexOf(Number(/On the (\d+)/.exec(move)![1])),
      })!
      await page.locator('[data-test=figure-typed]').fill(String('offsetMm' in seen ? seen.offsetMm : 0))
      await page.getByRole('button', { name: 'Note it' }).click()
      done.push('offset')
    } else if (/screw (out|in)|Barrel (out|in)/.test(move)) {
      bench.perform(await advisedTurn(page))
      await accept()
      done.push('turn')
    } else if (move.includes('Click by click')) {
      const to = bench.setup.teeth.indexOf(Number(/To the (\d+)/.exec(move)![1]))
      const heard = passClicks(bench, { do: 'pass', to, back: move.includes(', back') })
      const last = heard.at(-1)!
      if (last.kind === 'shift' && last.heard !== 'clean') {
        await tap(`[data-test=stop-${heard.length - 1}]`)
        await tap(`[data-test=heard-${last.heard}]`)
      } else await accept()
      done.push('pass')
    } else if (move.includes('To the')) {
      const heard = bench.perform({
        do: 'shift',
        to: bench.setup.teeth.indexOf(Number(/To the (\d+)/.exec(move)![1])),
      })!
      await tap(`[data-test=heard-${'heard' in heard ? heard.heard : ''}]`)
      done.push('shift')
    } else if (move.includes('Wind')) {
      const edge = bench.perform({
        do: 'edge',
        click: bench.setup.teeth.indexOf(Number(/On the (\d+)/.exec(move)![1])),
        way: move.includes('Wind out') ? 'out' : 'in',
      })!
      if (!('found' in edge)) throw new Error('not an edge')
      await tap(
        edge.found
          ? `[data-test="edge-${Math.min(2, Math.round(Math.abs(edge.turns) * 8) / 8)}"]`
          : '[data-test=edge-none]',
      )
      done.push('edge')
    } else if (move.includes('Gauge it')) {
      bench.perform({ do: 'hanger' })
      for (const hour of [12, 3, 6, 9]) await page.locator(`[data-test=gap-${hour}]`).fill(gapAt(bench, hour))
      await page.locator('[data-test=gauge-done]').click()
      done.push(`hanger ${degrees(Math.atan(bench.hidden.camberTan)).toFixed(1)}`)
    } else if (move.includes('New ')) {
      const part = /New (cable|hanger|shifter|derailleur|cassette)/.exec(move)![1] as 'cable'
      done.push(`replace ${part}`)
      bench.perform({ do: 'replace', part, cause: 'friction' })
      await accept()
    } else if (move.includes('Clamp again')) {
      const turns = /to (?:(\d+) ?)?(?:(\d+)\/(\d+))? ?out/.exec(move)!
      bench.perform({
        do: 'reclamp',
        barrelTurnsOut: Number(turns[1] ?? 0) + (turns[2] ? Number(turns[2]) / Number(turns[3]) : 0),
      })
      await accept()
      done.push('reclamp')
    } else throw new Error(`a move the test does not know: ${move}`)
    if (until && done.at(-1)!.startsWith(until)) return done
    await page.waitForFunction(n => performance.getEntriesByName('advice').length > n, asked)
  }
  throw new Error(`never ended: ${done.join(', ')}`)
}
