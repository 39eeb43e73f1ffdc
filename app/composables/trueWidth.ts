import { useElementSize } from '@vueuse/core'

/**
 * How wide a drawing stands, px: drawn just so wide, in a box of a fixed height, its letters are as tall on a phone as
 * at the bench. Bind `ref="drawn"` to it.
 * @param least no narrower than this, where its words still pass each other; on less it shrinks
 * @param usual until it is measured
 */
export function useTrueWidth(least: number, usual: number): ComputedRef<number> {
  const { width } = useElementSize(useTemplateRef<SVGSVGElement>('drawn'))
  return computed(() => Math.max(least, Math.round(width.value) || usual))
}
