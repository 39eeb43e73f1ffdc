import { pulled, pulledQuiet, QUIET_MS, stood, stoodQuiet, type Pull, type Standing } from '#core/quantity/settled'
import { toldBy } from '#core/quantity/told'
import { DEVICES, playFigure, type DeviceId } from './devices'

/*
 * A gauge on a serial line of this computer. What it sends is read line by line, the figure that is meant is picked out
 * of its stream, and goes the way of every device's.
 */

type Port = {
  open: (with_: { baudRate: number }) => Promise<void>
  close: () => Promise<void>
  readable: ReadableStream<Uint8Array> | null
}
declare global {
  interface Navigator {
    serial?: { requestPort: () => Promise<Port> }
  }
}
export const BAUD_RATES = [2_400, 4_800, 9_600, 19_200, 115_200] as const
/** A line longer than this is none: what came is dropped up to the next end of a line. */
const LONGEST = 200

export const SERIAL_TROUBLES = {
  none: 'This browser opens no serial line here. A gauge that types like a keyboard works in every browser',
  chosen: 'No line was chosen',
  open: 'The line could not be opened: another program or page may hold it',
  ended: 'The line ended: plug it in and connect it again',
  unread: 'What comes on the line is no figure: try another speed, or set the gauge to send plain lines',
} as const

/** One line for this page, as long as the page is loaded: it outlives the walk from page to page. */
const on = shallowRef<{ device: DeviceId; port: Port; stop: AbortController; ended: Promise<void> } | null>(null)
const trouble = ref('')
const last = ref('')

export function useSerialLine() {
  async function connect(device: DeviceId, baudRate: number): Promise<void> {
    trouble.value = ''
    last.value = ''
    await disconnect()
    if (!navigator.serial) return void (trouble.value = SERIAL_TROUBLES.none)
    const port = await navigator.serial.requestPort().catch(() => null)
    if (!port) return void (trouble.value = SERIAL_TROUBLES.chosen)
    const opened = await port.open({ baudRate }).then(
      () => true,
      () => false,
    )
    if (!opened || !port.readable) return void (trouble.value = SERIAL_TROUBLES.open)
    const stop = new AbortController()
    on.value = { device, port, stop, ended: read(device, port, port.readable, stop.signal) }
  }
  async function read(device: DeviceId, port: Port, readable: ReadableStream<Uint8Array>, stop: AbortSignal) {
    const listener = meantBy(device)
    try {
      await eachLine(readable, listener.line, stop)
    } catch {
      // unplugged, or let go: said below
    }
    listener.end()
    if (on.value?.port !== port) return
    on.value = null
    trouble.value = SERIAL_TROUBLES.ended
  }
  async function disconnect(): Promise<void> {
    const was = on.value
    on.value = null
    was?.stop.abort()
    await was?.ended
    await was?.port.close().catch(() => {})
  }
  return { on, trouble, last, connect, disconnect }
}

/** Picks what is meant out of a device's lines, and tells it. */
function meantBy(device: DeviceId) {
  const { unit, words } = DEVICES[device]
  let standing: Standing = null
  let pull: Pull = null
  let quiet: ReturnType<typeof setTimeout> | undefined
  let unread = 0
  const tell = (value: number | null) => {
    if (value === null) return
    last.value = `${words}: ${value} ${unit}`
    playFigure({ device, value, standIn: false })
  }
  const settle = () => {
    if (unit === 'mm') {
      const step = stoodQuiet(standing)
      standing = step.now
      return tell(step.meant)
    }
    const step = pulledQuiet(pull)
    pull = step.now
    tell(step.meant)
  }
  return {
    line(text: string): void {
      const told = toldBy(text)
      if (told.is === 'unit') return void (trouble.value = `It says ${told.unit}: set it to ${unit}`)
      if (told.is === 'none') {
        // the first line is often cut in two
        if (++unread > 2) trouble.value = SERIAL_TROUBLES.unread
        return
      }
      if (told.unit && told.unit !== unit) return void (trouble.value = `It says ${told.unit}: ${words} tells ${unit}`)
      unread = 0
      trouble.value = ''
      clearTimeout(quiet)
      quiet = setTimeout(settle, QUIET_MS)
      if (unit === 'mm') {
        const step = stood(standing, told.value, performance.now())
        standing = step.now
        return tell(step.meant)
      }
      const step = pulled(pull, told.value)
      pull = step.now
      tell(step.meant)
    },
    end: () => clearTimeout(quiet),
  }
}

async function eachLine(readable: ReadableStream<Uint8Array>, line: (text: string) => void, signal: AbortSignal) {
  const text = new TextDecoderStream() as ReadableWritablePair<string, Uint8Array>
  const reader = readable.pipeThrough(text, { signal }).getReader()
  let rest = ''
  for (;;) {
    const { value, done } = await reader.read()
    if (done) return
    const lines = (rest + value).split(/[\r\n]+/)
    rest = lines.pop()!.slice(-LONGEST)
    lines.filter(l => l.trim() !== '').forEach(line)
  }
}
