import { spawnSync } from 'node:child_process'
import { renameSync } from 'node:fs'
import { arch } from 'node:process'

/** Number of Linux's `renameat2` by kind of processor (its own tables of system calls). */
const RENAMEAT2: Partial<Record<NodeJS.Architecture, number>> = { x64: 316, arm64: 276 }
const AT_CWD = -100
const EXCHANGE = 2

/**
 * Puts each of two folders in the place of the other, at once: whoever looks, and whatever is cut short, finds one or
 * the other there and never none. Node.js offers no such call; perl, without which no Debian is, does. Where the kernel
 * or the disk cannot, two renames, one right after the other.
 * @throws Error of the file system, with both as they were
 */
export function swapFolders(a: string, b: string): void {
  if (!swappedAtOnce(a, b)) swapByRenames(a, b)
}

/** @returns false where that cannot be done here, and nothing was */
export function swappedAtOnce(a: string, b: string): boolean {
  const call = RENAMEAT2[arch]
  if (call === undefined) return false
  const script = `exit(syscall(${call}, ${AT_CWD}, $ARGV[0], ${AT_CWD}, $ARGV[1], ${EXCHANGE}) == 0 ? 0 : 1)`
  return spawnSync('perl', ['-e', script, a, b], { stdio: 'ignore' }).status === 0
}

export function swapByRenames(a: string, b: string): void {
  const aside = `${b}.aside`
  renameSync(a, aside)
  try {
    renameSync(b, a)
  } catch (error) {
    renameSync(aside, a)
    throw error
  }
  renameSync(aside, b)
}
