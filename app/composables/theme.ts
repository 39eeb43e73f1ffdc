/** Light or dim ground; the mat stays. The device's own wish until someone chooses. */
export type Theme = 'light' | 'dim'
const KEY = 'ocho-theme'

export function restoreTheme(): void {
  const kept = localStorage.getItem(KEY)
  if (kept === 'light' || kept === 'dim') document.documentElement.dataset.theme = kept
}

export function flipTheme(): void {
  const now =
    document.documentElement.dataset.theme ?? (matchMedia('(prefers-color-scheme: dark)').matches ? 'dim' : 'light')
  const next: Theme = now === 'dim' ? 'light' : 'dim'
  document.documentElement.dataset.theme = next
  localStorage.setItem(KEY, next)
}
