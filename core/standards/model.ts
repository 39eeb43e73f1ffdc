/**
 * Parameters of our own model that the catalogue shows beside the rest; they are calibrated, not measured by a shop.
 * All `model`.
 */

/** A stop is safe when its own place lies between these, in pitches from its end sprocket's plane, + inboard. */
export const SAFE = { L: { from: -0.25, to: 0.2 }, H: { from: -0.6, to: 0.25 } } as const

/** Turns of window below which there is none: "stop turning the barrel". */
export const NO_WINDOW_TURNS = 1 / 8
/** A window narrower than this puts a cause at fault (model, section 3). */
export const FAULT_WINDOW_TURNS = 1 / 4
/** With this in its place: a part replaced without that blame was replaced needlessly. */
export const NEEDED_WINDOW_TURNS = 3 / 8

/**
 * Where stops are wanted unless a school says otherwise, mm from their end sprockets' planes, + inboard. `practice`: in
 * line, never further inboard at the largest
 */
export const STOP_PLACING = { H: { from: -0.5, to: 0.3 }, L: { from: -0.5, to: 0.2 } } as const
