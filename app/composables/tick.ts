import { useDebounceFn } from '@vueuse/core'

let sound: AudioContext | undefined

/** A device that is held open draws on the tablet's battery all day, though nothing sounds. */
const RESTS_AFTER_MS = 20_000
const restWhenQuiet = useDebounceFn(() => void sound?.suspend(), RESTS_AFTER_MS)

/** A quiet tick when something is logged, so that eyes stay on the chain. Off with `ocho-tick` = off. */
export function tick(): void {
  if (localStorage.getItem('ocho-tick') === 'off' || !('AudioContext' in window)) return
  try {
    sound ??= new AudioContext()
    void sound.resume()
    void restWhenQuiet()
    const volume = sound.createGain()
    volume.gain.setValueAtTime(0.05, sound.currentTime)
    volume.gain.exponentialRampToValueAtTime(0.0001, sound.currentTime + 0.04)
    const tone = new OscillatorNode(sound, { frequency: 1800 })
    tone.connect(volume).connect(sound.destination)
    tone.start()
    tone.stop(sound.currentTime + 0.05)
  } catch {
    // no sound device: the screen tells it too
  }
}
