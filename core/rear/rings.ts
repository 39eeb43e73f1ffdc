export type Ring = 'small' | 'middle' | 'big'

/** The rings a bike has, smallest first; all three where nobody counted them, none to choose among where it has one. */
export function ringsOf(count: number | null): readonly Ring[] {
  if (count === 1) return []
  return count === 2 ? ['small', 'big'] : ['small', 'middle', 'big']
}

/**
 * On which ring the chain is while something is done at the rear. H and the small sprockets on the big one, L and the
 * large ones on the small one; indexed on the big one, of three on the middle one. `practice`
 */
export function ringFor(what: 'H' | 'L' | 'index', count: number | null): Ring | null {
  if (count === 1) return null
  if (what === 'L') return 'small'
  return what === 'index' && count === 3 ? 'middle' : 'big'
}

/** In words; null where there is one ring only. */
export function sayRing(what: 'H' | 'L' | 'index', count: number | null): string | null {
  const ring = ringFor(what, count)
  return ring && `chain on the ${ring} ring`
}

/**
 * Sprockets that are left out on a ring, since the pair crosses and is not asked to be clean: the largest on the big
 * ring, the smallest on the small one. `practice`
 * @param speeds sprockets of the cassette
 * @param crossed does this shop ask crossed pairs all the same?
 */
export const leftOut = (ring: Ring | null, speeds: number, crossed = false): readonly number[] =>
  crossed || ring === null || ring === 'middle' ? [] : [ring === 'big' ? speeds - 1 : 0]
