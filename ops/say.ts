const start = Date.now()

/** Tells what is being done, with the time since the start. */
export const say = (line: string): void => {
  console.log(`[${((Date.now() - start) / 1000).toFixed(1).padStart(6)} s] ${line}`)
}
