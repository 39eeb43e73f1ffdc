import { useLocalStorage } from '@vueuse/core'
import type { Stereo } from '#core/sound/chain'

/**
 * The chain of the practice stand, heard: the lever's click at once, what the shift came to, then how it runs on
 * without a gap until the next.
 */
export function usePracticeSound() {
  const volume = useLocalStorage('ocho-practice-volume', 0.6)
  /** No sound device, or the browser will not: the words are there all the same. */
  const silent = ref(false)
  let context: AudioContext | undefined
  let loud: GainNode | undefined
  let playing: AudioBufferSourceNode[] = []
  let lever: Stereo | undefined
  let gone = false

  /** The device, opened once; null where there is none, and for what was reckoned until after the page was left. */
  function ready(): { context: AudioContext; loud: GainNode } | null {
    if (gone) return null
    try {
      context ??= new AudioContext()
      if (!loud) {
        loud = context.createGain()
        loud.connect(context.destination)
      }
      void context.resume()
      return { context, loud }
    } catch {
      silent.value = true
      return null
    }
  }
  watch(volume, v => loud?.gain.setTargetAtTime(v, context!.currentTime, 0.02))

  function source(sound: Stereo, loop: boolean, on: { context: AudioContext; loud: GainNode }): AudioBufferSourceNode {
    const buffer = on.context.createBuffer(2, sound.left.length, sound.rate)
    buffer.copyToChannel(sound.left as Float32Array<ArrayBuffer>, 0)
    buffer.copyToChannel(sound.right as Float32Array<ArrayBuffer>, 1)
    const node = on.context.createBufferSource()
    node.buffer = buffer
    node.loop = loop
    node.connect(on.loud)
    return node
  }

  /** Opens the device before the first shift, where the browser lets a page that was touched already. */
  function prepare(click: Stereo): void {
    lever = click
    if (navigator.userActivation?.hasBeenActive) ready()
  }
  /** The lever, at once: nothing is reckoned for it. */
  function click(): void {
    if (!lever) return
    const on = ready()
    if (!on) return
    on.loud.gain.setValueAtTime(volume.value, on.context.currentTime)
    source(lever, false, on).start()
    performance.mark('practice-sound') // read by the tests
  }

  /** When the chain runs on, by the sound's own clock. */
  let runsOnAt = 0
  /** What the chain makes of the shift, as soon as it is known; what ran before is still. */
  function begin(shift: Stereo | null): void {
    const on = ready()
    if (!on) return
    const at = on.context.currentTime + 0.01
    on.loud.gain.setValueAtTime(volume.value, on.context.currentTime)
    // a turn made while a shift still sounds is heard after it
    runsOnAt = Math.max(at, runsOnAt)
    if (shift) {
      stop(at)
      playing = []
      const node = source(shift, false, on)
      node.start(at)
      playing.push(node)
      runsOnAt = at + shift.left.length / shift.rate
    }
    performance.mark('practice-sound')
  }
  /** The chain runs on in the shift's wake, on the same clock: no gap between, however busy the page is. */
  function runOn(running: Stereo): void {
    const on = ready()
    if (!on) return
    const at = Math.max(on.context.currentTime + 0.01, runsOnAt)
    for (const node of playing) if (node.loop) node.stop(at)
    playing = playing.filter(node => !node.loop)
    const node = source(running, true, on)
    node.start(at)
    playing.push(node)
  }
  function stop(at?: number): void {
    for (const node of playing) node.stop(at ?? 0)
    playing = []
  }
  onScopeDispose(() => {
    gone = true
    stop()
    void context?.close()
  })
  return { volume, silent, prepare, click, begin, runOn, stop: () => stop() }
}
