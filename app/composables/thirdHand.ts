/** What the next move is, in one short sentence, for a voice; null where there is none. */
export const nextMoveWords = shallowRef<string | null>(null)

/** Where a tablet keeps what its people's third hands do; there once its page of devices was opened. */
export const HANDS_KEY = 'ocho-hands'

/**
 * What serves a bench beside hands and keys: taught keys, knocks, a voice, devices that tell figures. Fetched only on a
 * tablet where its page was opened once: for the others it weighs nothing.
 */
export function useThirdHand(say: (words: string) => void): void {
  const scope = getCurrentScope()!
  onMounted(() => {
    if (localStorage.getItem(HANDS_KEY))
      void import('~/workers/thirdHand').then(m => scope.active && scope.run(() => m.thirdHand(say)))
  })
}
