import { z } from 'zod'
import { tellFigure, type FigureTold } from './benchKeys'

/*
 * Devices that tell figures: each through the same small message, whether it is real or plays. A real one types, and is
 * told from a person by its speed (benchKeys.ts); one with a line of its own, and the stand-ins, send this.
 */

export const DEVICES = {
  caliper: { words: 'Caliper', unit: 'mm', says: [12.3, 4.9, 0.6] },
  dial: { words: 'Dial gauge on the hanger', unit: 'mm', says: [21.4, 20.6, 19.8, 20.5] },
  torque: { words: 'Torque wrench', unit: 'N·m', says: [9.1, 5.4, 2.2, 8.6] },
  scale: { words: 'Scale with a slide', unit: 'mm', says: [412, 285, 98.5] },
  template: { words: 'Depth gauge for the gap', unit: 'mm', says: [5.5, 6.2, 7.0] },
} as const satisfies Record<string, { words: string; unit: FigureTold['unit']; says: readonly number[] }>
export type DeviceId = keyof typeof DEVICES
const Figure = z.object({
  device: z.enum(Object.keys(DEVICES) as [DeviceId, ...DeviceId[]]),
  value: z.number().min(-5_000).max(5_000),
  standIn: z.boolean(),
})
/** The line that devices of this tablet tell their figures on. */
export const DEVICES_CHANNEL = 'ocho-devices'
export type DeviceFigure = z.infer<typeof Figure>

/** Plays a device: its figure goes to whichever page of this tablet waits for one. */
export function playFigure(figure: DeviceFigure): void {
  const channel = new BroadcastChannel(DEVICES_CHANNEL)
  channel.postMessage(figure)
  channel.close()
}

/**
 * Hands a device's figure to the line that waits for one, and says whose it is. What is no figure, and a stand-in's
 * outside the demo's shop, is not handed on.
 */
export function takeFigure(sent: unknown, demo: boolean, say: (words: string) => void): void {
  const read = Figure.safeParse(sent)
  if (!read.success) return void say('A device sent something that is no figure: type it')
  const { device, value, standIn } = read.data
  if (standIn && !demo) return void say('A stand-in plays in the demo’s shop only: measure this bike and type it')
  const { words, unit } = DEVICES[device]
  say(
    tellFigure({ value, unit })
      ? `${words}${standIn ? ', a stand-in' : ''}: ${value} ${unit}`
      : `${words}: no line waits for ${value} ${unit} here`,
  )
}
