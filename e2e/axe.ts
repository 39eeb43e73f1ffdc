import type { Page } from '@playwright/test'
import axe from 'axe-core'

type Only = 'all' | 'colours' | 'all but colours'

/**
 * What axe finds on a page, each in a line: run in the page itself, which has no frames. Stylesheets are not fetched
 * anew (only a rule that is off asks for them), and nothing but violations is written out.
 */
export async function axeFinds(page: Page, only: Only = 'all'): Promise<string[]> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source)
  return page.evaluate(
    async ([colour, which]) => {
      const { violations } = await (window as unknown as { axe: typeof axe }).axe.run(document, {
        preload: false,
        resultTypes: ['violations'],
        ...(which === 'colours' && { runOnly: { type: 'rule', values: [colour] } }),
        ...(which === 'all but colours' && { rules: { [colour]: { enabled: false } } }),
      })
      return violations.map(
        v =>
          `${v.id} ${v.nodes
            .map(n => n.target.join(' '))
            .slice(0, 3)
            .join(' | ')}`,
      )
    },
    ['color-contrast', only] as const,
  )
}
