/** Guards at the door of public functions: each throws a RangeError that names the argument. */

/** @throws RangeError when `value` is not a finite number. */
export function finite(name: string, value: unknown): asserts value is number {
  if (typeof value !== 'number' || !Number.isFinite(value))
    throw new RangeError(`${name} must be a number, not ${String(value)}`)
}

/** @throws RangeError when `value` is not a number of at least 0. */
export function notNegative(name: string, value: unknown): asserts value is number {
  finite(name, value)
  if (value < 0) throw new RangeError(`${name} must not be negative, it is ${value}`)
}

/** @throws RangeError when `value` is not a number above 0. */
export function positive(name: string, value: unknown): asserts value is number {
  finite(name, value)
  if (value <= 0) throw new RangeError(`${name} must be more than 0, it is ${value}`)
}

/** @throws RangeError when `value` is not a whole number from `least` to `most`. */
export function wholeIn(name: string, value: unknown, least: number, most: number): asserts value is number {
  finite(name, value)
  if (!Number.isInteger(value) || value < least || value > most)
    throw new RangeError(`${name} must be a whole number from ${least} to ${most}, it is ${value}`)
}

/** Every member positive, at least `least` of them. @throws RangeError naming the list or the member. */
export function positiveList(name: string, values: unknown, least = 1): asserts values is number[] {
  if (!Array.isArray(values)) throw new RangeError(`${name} must be a list of numbers`)
  if (values.length < least) throw new RangeError(`${name} needs at least ${least} values, it has ${values.length}`)
  values.forEach((v, i) => positive(`${name}[${i}]`, v))
}
