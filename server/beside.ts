import { readFileSync, renameSync, writeFileSync } from 'node:fs'

/*
 * Files beside the data, by which launcher and server tell each other how things stand.
 */

/** Writes a file whole or not at all: a kill in between leaves what was there. */
export function writeWhole(file: string, text: string, mode = 0o600): void {
  const aside = `${file}.${process.pid}.part`
  writeFileSync(aside, text, { mode })
  renameSync(aside, file)
}

/** What a file holds, by its schema; null where there is none, or nothing that can be read. */
export function readBeside<T>(schema: { parse(value: unknown): T }, file: string): T | null {
  try {
    return schema.parse(JSON.parse(readFileSync(file, 'utf8')))
  } catch {
    return null
  }
}
