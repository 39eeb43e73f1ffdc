import { useIntervalFn } from '@vueuse/core'
import { useHearing } from './useHearing'

/**
 * Tells of every pair of knocks on the stand, or of claps, until it is stopped. Nothing of what is heard is kept.
 * @returns stops it
 */
export function knocksHeard(onPair: () => void): () => void {
  const scope = effectScope()
  scope.run(() => {
    const microphone = useMicrophone(3)
    const hearing = useHearing()
    let busy = false
    void microphone.start()
    useIntervalFn(() => {
      void (async () => {
        if (busy || !microphone.on.value) return
        busy = true
        const { samples, rateHz } = microphone.recording()
        const at = samples.length > rateHz ? await hearing().knocks(samples, rateHz) : null
        if (at !== null) {
          microphone.afresh()
          onPair()
        }
        busy = false
      })()
    }, 350)
  })
  return () => scope.stop()
}
