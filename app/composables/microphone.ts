const wordsOf = (name: string) => mediaTrouble('microphone', 'say what you hear as always', name)

/**
 * The tablet's microphone, its last seconds kept here and nowhere else. What a browser does to voices (echo, noise and
 * loudness taken off) is switched off: it would take the chain away.
 * @param keepS how much is kept, s
 */
export function useMicrophone(keepS: number) {
  const on = ref(false)
  const trouble = ref('')
  let stream: MediaStream | undefined
  let context: AudioContext | undefined
  let kept = new Float32Array(0)
  let filled = 0
  /** Counts the times it was started and stopped: what was asked for before the last of them comes too late. */
  let starts = 0

  async function start(): Promise<void> {
    trouble.value = ''
    // what types say is always there is missing on an insecure page
    const devices = navigator.mediaDevices as MediaDevices | undefined
    if (!devices) return void (trouble.value = wordsOf('Insecure'))
    const begun = ++starts
    try {
      const given = await devices.getUserMedia({
        audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
      })
      // allowed only after the page was left or listening was stopped: nobody is there to hear
      if (begun !== starts) return given.getTracks().forEach(t => t.stop())
      stream = given
      const sound = (context = new AudioContext())
      await sound.audioWorklet.addModule('/takeSamples.js')
      if (begun !== starts) return
      kept = new Float32Array(Math.round(keepS * sound.sampleRate))
      filled = 0
      const taker = new AudioWorkletNode(sound, 'take-samples')
      taker.port.onmessage = ({ data }: MessageEvent<Float32Array>) => take(data)
      sound.createMediaStreamSource(given).connect(taker)
      // it puts out silence: what leads nowhere some browsers do not run
      taker.connect(sound.destination)
      on.value = true
    } catch (error) {
      // stopped meanwhile, and perhaps begun anew: that one goes on
      if (begun !== starts) return
      stop()
      trouble.value = wordsOf((error as Error).name)
    }
  }
  function take(samples: Float32Array): void {
    kept.copyWithin(0, samples.length)
    kept.set(samples, kept.length - samples.length)
    filled = Math.min(kept.length, filled + samples.length)
  }
  function stop(): void {
    starts++
    stream?.getTracks().forEach(t => t.stop())
    void context?.close()
    stream = undefined
    context = undefined
    on.value = false
  }
  /** From now on only what comes is heard: a screw was turned, another gear taken. */
  const afresh = () => void (filled = 0)
  /** What was heard since. */
  const recording = () => ({ samples: kept.slice(kept.length - filled), rateHz: context?.sampleRate ?? 48_000 })
  onScopeDispose(stop)
  return { on, trouble, start, stop, afresh, recording }
}
