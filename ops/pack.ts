import { execFileSync } from 'node:child_process'
import { cpSync, existsSync, mkdirSync, mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { bundleLauncher, LAUNCHER } from './bundle'
import { say } from './say'
import { ENTRY, ROOT } from './server'
import { ClusterTrouble } from './postgres'
import { VERSION_FILE, versionHere, type Version } from './version'

/** What runs on, and what its parts were made for: a picture library's machine code is of one kind of machine. */
const MACHINE = `${process.platform}-${process.arch}`

/**
 * A release in one archive: the built server with what it needs, the launcher in one file, and the command. It is
 * installed by unpacking it; neither a compiler nor a registry of packages is asked, only Node.js and Debian's
 * PostgreSQL.
 * @returns the archive
 */
export async function pack(to: string | undefined, as: Partial<Version> = {}): Promise<string> {
  if (!existsSync(ENTRY)) throw new ClusterTrouble('Ocho is not built: run npm run build')
  const version = { ...versionHere(), packedAt: new Date().toISOString(), ...as }
  const name = `ocho-${version.version}-${MACHINE}`
  const file = resolve(to ?? `${name}.tar.gz`)
  const aside = mkdtempSync(join(tmpdir(), 'ocho-pack-'))
  const folder = join(aside, name)
  try {
    mkdirSync(join(folder, 'ops'), { recursive: true })
    await bundleLauncher(join(folder, LAUNCHER))
    cpSync(join(ROOT, '.output'), join(folder, '.output'), { recursive: true, verbatimSymlinks: true })
    for (const part of ['ocho', 'README.md', 'docs'])
      cpSync(join(ROOT, part), join(folder, part), { recursive: true, filter: from => !from.endsWith('screenshots') })
    writeFileSync(join(folder, VERSION_FILE), JSON.stringify(version, null, 2))
    execFileSync('tar', ['--owner=0', '--group=0', '--sort=name', '-czf', file, '-C', aside, name])
  } finally {
    rmSync(aside, { recursive: true, force: true })
  }
  say(
    `packed: ${file}, ${(statSync(file).size / 1024 ** 2).toFixed(0)} MB. Unpack it where Ocho is to live, and ./ocho start`,
  )
  return file
}
