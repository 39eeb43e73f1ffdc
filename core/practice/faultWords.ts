import type { FrontIll } from '../bench/front'
import { faultWords } from '../brake/faultWords'
import { hubFaultWords } from '../hub/faultWords'
import { CAUSE_WORDS, type Cause } from '../response/causes'
import { BENCH_WORDS, type PracticeBench } from './levels'

/** What is put wrong at a practice front, by name. */
const FRONT_WORDS: Record<FrontIll, string> = {
  tension: 'Cable off',
  'L out': 'L lets the chain inboard',
  'L in': 'L holds the cage off the small ring',
  'H out': 'H lets the chain outboard',
  'H in': 'H holds the cage off the big ring',
  height: 'Cage at the wrong height',
  angle: 'Cage turned',
  friction: 'Cable drags',
  pull: 'Lever and derailleur do not match',
}

const wordsOf = (bench: PracticeBench, fault: string): string | undefined => {
  switch (bench) {
    case 'rear':
      return CAUSE_WORDS[fault as Cause]
    case 'front':
      return FRONT_WORDS[fault as FrontIll]
    case 'brake':
      return faultWords(undefined, fault)
    case 'hub':
      return hubFaultWords(fault)
  }
}

/**
 * A practice bike's fault in words, its bench first where it is not the rear; an id that a later version keeps is said
 * as it is.
 */
export const practiceFaultWords = (bench: PracticeBench, fault: string): string => {
  const words = wordsOf(bench, fault) ?? fault.replaceAll('-', ' ')
  return bench === 'rear' ? words : `${BENCH_WORDS[bench]}: ${words}`
}
