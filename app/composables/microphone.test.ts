import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { effectScope, ref, onScopeDispose } from 'vue'
import { mediaTrouble } from './mediaTrouble'
import { useMicrophone } from './microphone'

/* A permission that is asked for is answered whenever somebody touches it: after the page was left as well. */

type Asked = { allow: () => void; refuse: (name: string) => void }
let asked: Asked[] = []
let streams: { stopped: boolean }[] = []
let contexts: { closed: boolean; loaded: () => void; failed: (name: string) => void }[] = []
let send: (samples: Float32Array) => void = () => undefined

const failure = (name: string) => Object.assign(new Error(name), { name })
class Context {
  sampleRate = 48_000
  destination = {}
  audioWorklet
  kept: (typeof contexts)[number] = { closed: false, loaded: () => undefined, failed: () => undefined }
  constructor() {
    contexts.push(this.kept)
    const loading = new Promise<void>((done, failed) => {
      this.kept.loaded = done
      this.kept.failed = name => failed(failure(name))
    })
    this.audioWorklet = { addModule: () => loading }
  }
  createMediaStreamSource = () => ({ connect: vi.fn() })
  close = async () => void (this.kept.closed = true)
}
class Taker {
  port = {
    set onmessage(take: (message: { data: Float32Array }) => void) {
      send = data => take({ data })
    },
  }
  connect = vi.fn()
}
function microphone() {
  const scope = effectScope()
  return { ...scope.run(() => useMicrophone(1))!, leave: () => scope.stop() }
}
/** It is allowed, and what takes the sound is being fetched. */
async function allowed(mic: ReturnType<typeof microphone>) {
  void mic.start()
  asked.at(-1)!.allow()
  await soon()
}
/** What waits for a promise that is kept already has gone on. */
const soon = () => new Promise(done => setTimeout(done))

beforeEach(() => {
  asked = []
  streams = []
  contexts = []
  const getUserMedia = () =>
    new Promise((done, failed) => {
      const stream = { stopped: false }
      asked.push({
        allow: () => {
          streams.push(stream)
          done({ getTracks: () => [{ stop: () => void (stream.stopped = true) }] })
        },
        refuse: name => failed(failure(name)),
      })
    })
  for (const [name, is] of Object.entries({
    ref,
    onScopeDispose,
    mediaTrouble,
    navigator: { mediaDevices: { getUserMedia } },
    AudioContext: Context,
    AudioWorkletNode: Taker,
  }))
    vi.stubGlobal(name, is)
})
afterEach(() => vi.unstubAllGlobals())

test('what is heard is kept up to its seconds, the newest last; afresh lets go of it', async () => {
  const mic = microphone()
  await allowed(mic)
  contexts[0]!.loaded()
  await soon()
  expect(mic.on.value).toBe(true)
  send(new Float32Array(30_000).fill(1))
  send(new Float32Array(30_000).fill(2))
  const { samples, rateHz } = mic.recording()
  expect([samples.length, rateHz, samples[0], samples[17_999], samples[18_000], samples.at(-1)]).toEqual([
    48_000, 48_000, 1, 1, 2, 2,
  ])
  mic.afresh()
  expect(mic.recording().samples).toHaveLength(0)
  mic.leave()
  expect([streams[0]!.stopped, contexts[0]!.closed, mic.on.value]).toEqual([true, true, false])
})

test.each(['NotAllowedError', 'NotReadableError', 'NotFoundError'])(
  '%s is said, and nothing stays open',
  async name => {
    const mic = microphone()
    void mic.start()
    asked[0]!.refuse(name)
    await soon()
    expect(mic.trouble.value).toBe(mediaTrouble('microphone', 'say what you hear as always', name))
    expect([mic.on.value, contexts.length]).toEqual([false, 0])
  },
)

test('allowed after the page was left: the microphone is let go at once', async () => {
  const mic = microphone()
  void mic.start()
  mic.leave()
  asked[0]!.allow()
  await soon()
  expect([streams[0]!.stopped, contexts.length, mic.on.value]).toEqual([true, 0, false])
})

test('left while what takes the sound is fetched: nothing is on when it arrives', async () => {
  const mic = microphone()
  await allowed(mic)
  mic.leave()
  contexts[0]!.loaded()
  await soon()
  expect([streams[0]!.stopped, contexts[0]!.closed, mic.on.value]).toEqual([true, true, false])
})

test('a first try that fails late says nothing and takes nothing from the second, which is on', async () => {
  const mic = microphone()
  await allowed(mic)
  mic.stop()
  await allowed(mic)
  contexts[1]!.loaded()
  await soon()
  contexts[0]!.failed('AbortError')
  await soon()
  expect([mic.on.value, mic.trouble.value, streams[1]!.stopped, contexts[1]!.closed]).toEqual([true, '', false, false])
  expect([streams[0]!.stopped, contexts[0]!.closed]).toEqual([true, true])
})

test('what takes the sound cannot be fetched: said, and let go', async () => {
  const mic = microphone()
  await allowed(mic)
  contexts[0]!.failed('AbortError')
  await soon()
  expect(mic.trouble.value).toContain('reload the page')
  expect([streams[0]!.stopped, contexts[0]!.closed, mic.on.value]).toEqual([true, true, false])
})

test('an insecure page has no microphone, and says how it gets one', async () => {
  vi.stubGlobal('navigator', {})
  const mic = microphone()
  await mic.start()
  expect(mic.trouble.value).toContain('https')
})
