import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'

type Only = 'all' | 'colours' | 'all but colours'

/**
 * What axe finds on a page, each in a line. Stylesheets are not fetched anew (only a rule that is off asks for them), and
 * nothing but violations is written out.
 */
export async function axeFinds(page: Page, only: Only = 'all'): Promise<string[]> {
  const axe = new AxeBuilder({ page }).options({ preload: false, resultTypes: ['violations'] })
  if (only === 'colours') axe.withRules(['color-contrast'])
  if (only === 'all but colours') axe.disableRules(['color-contrast'])
  const { violations } = await axe.analyze()
  return violations.map(
    v =>
      `${v.id} ${v.nodes
        .map(n => n.target.join(' '))
        .slice(0, 3)
        .join(' | ')}`,
  )
}
