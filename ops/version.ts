import { execFileSync } from 'node:child_process'
import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { z } from 'zod'
import { ROOT } from './server'

export const Version = z.object({
  version: z.string().regex(/^\d+\.\d+\.\d+$/),
  /** What of the code it is, and when it was packed. */
  commit: z.string(),
  packedAt: z.iso.datetime().nullable(),
})
export type Version = z.infer<typeof Version>

export const VERSION_FILE = 'version.json'
/** Installed out of an archive: what runs is made already, and nothing is fetched. */
export const isPacked = (root = ROOT): boolean => existsSync(join(root, VERSION_FILE))

/** Which Ocho this is. */
export function versionHere(root = ROOT): Version {
  if (isPacked(root)) return Version.parse(JSON.parse(readFileSync(join(root, VERSION_FILE), 'utf8')))
  const { version } = JSON.parse(readFileSync(join(root, 'package.json'), 'utf8')) as { version: string }
  let commit = 'unknown'
  try {
    commit = execFileSync('git', ['rev-parse', '--short', 'HEAD'], {
      cwd: root,
      encoding: 'utf8',
      stdio: 'pipe',
    }).trim()
  } catch {
    // no checkout, or no git: the version says enough
  }
  return { version, commit, packedAt: null }
}

/** Is `a` an earlier version than `b`? */
export function isEarlier(a: string, b: string): boolean {
  const [x, y] = [a, b].map(v => v.split('.').map(Number))
  const at = x.findIndex((n, i) => n !== y[i])
  return at >= 0 && x[at] < y[at]
}
