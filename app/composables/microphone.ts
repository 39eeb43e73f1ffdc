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

  async function start(): Promise<void> {
    trouble.value = ''
    // what types say is always there is missing on an insecure page
    const devices = navigator.mediaDevices as MediaDevices | undefined
    if (!devices) return void (trouble.value = wordsOf('Insecure'))
    try {
      stream = await devices.getUserMedia({
        audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
      })
    } catch (error) {
      trouble.value = wordsOf((error as Error).name)
      return
    }
    context = new AudioContext()
    kept = new Float32Array(Math.round(keepS * context.sampleRate))
    filled = 0
    // a worklet would need a script of its own to be let in; this runs everywhere and is light
    const taker = context.createScriptProcessor(4096, 1, 1)
    taker.onaudioprocess = ({ inputBuffer }) => take(inputBuffer.getChannelData(0))
    context.createMediaStreamSource(stream).connect(taker)
    taker.connect(context.destination)
    on.value = true
  }
  function take(samples: Float32Array): void {
    kept.copyWithin(0, samples.length)
    kept.set(samples, kept.length - samples.length)
    filled = Math.min(kept.length, filled + samples.length)
  }
  function stop(): void {
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
