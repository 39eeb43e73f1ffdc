import { afterEach, beforeEach, expect, test, vi } from 'vitest'

const device = { made: 0, sounds: 0, rests: false }
class Context {
  currentTime = 0
  destination = {}
  constructor() {
    device.made++
  }
  createGain = () => ({
    gain: { setValueAtTime: vi.fn(), exponentialRampToValueAtTime: vi.fn() },
    connect: <T>(to: T) => to,
  })
  resume = async () => void (device.rests = false)
  suspend = async () => void (device.rests = true)
}
class Tone {
  connect = <T>(to: T) => to
  start = () => void device.sounds++
  stop = vi.fn()
}
const kept = new Map<string, string>()

beforeEach(() => {
  vi.useFakeTimers()
  vi.resetModules()
  Object.assign(device, { made: 0, sounds: 0, rests: false })
  kept.clear()
  vi.stubGlobal('window', { AudioContext: Context })
  vi.stubGlobal('AudioContext', Context)
  vi.stubGlobal('OscillatorNode', Tone)
  vi.stubGlobal('localStorage', { getItem: (key: string) => kept.get(key) ?? null })
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})
const ticks = async () => (await import('./tick')).tick

test('one device for all ticks, let go when none came for a while and woken by the next', async () => {
  const tick = await ticks()
  for (let i = 0; i < 3; i++) {
    tick()
    await vi.advanceTimersByTimeAsync(15_000)
    expect(device.rests).toBe(false)
  }
  await vi.advanceTimersByTimeAsync(6_000)
  expect(device).toEqual({ made: 1, sounds: 3, rests: true })
  tick()
  expect(device).toEqual({ made: 1, sounds: 4, rests: false })
})

test('turned off, it opens no device', async () => {
  kept.set('ocho-tick', 'off')
  ;(await ticks())()
  expect(device.made).toBe(0)
})

test('without a sound device nothing is thrown', async () => {
  const none = () => {
    throw new Error('no device')
  }
  vi.stubGlobal('AudioContext', vi.fn(none))
  expect(await ticks()).not.toThrow()
})
