import { spawn } from 'node:child_process'
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, describe, expect, test } from 'vitest'
import { swapByRenames, swapFolders, swappedAtOnce } from './swapFolders'

let house: string
const at = (...path: string[]) => join(house, ...path)
const says = (folder: string) => readFileSync(at(folder, 'says'), 'utf8')

beforeEach(() => {
  house = mkdtempSync(join(tmpdir(), "ocho swap '"))
  for (const name of ['old', 'new']) {
    mkdirSync(at(name))
    writeFileSync(at(name, 'says'), name)
  }
})
afterEach(() => rmSync(house, { recursive: true, force: true }))

describe('two folders in each other’s place', () => {
  test.each([
    ['as this machine does it', swapFolders],
    ['by renames, where it cannot be at once', swapByRenames],
  ])('%s', (_, swap) => {
    swap(at('old'), at('new'))
    expect([says('old'), says('new')]).toEqual(['new', 'old'])
    swap(at('old'), at('new'))
    expect([says('old'), says('new')]).toEqual(['old', 'new'])
  })
  test.each([
    ['as this machine does it', swapFolders],
    ['by renames', swapByRenames],
  ])('one that is not there leaves the other where it was: %s', (_, swap) => {
    expect(() => swap(at('old'), at('nowhere'))).toThrow(/ENOENT/)
    expect(says('old')).toBe('old')
    expect(() => swap(at('nowhere'), at('new'))).toThrow(/ENOENT/)
    expect(says('new')).toBe('new')
  })
  test('at once: somebody who looks all the time never finds the place empty', async () => {
    expect(swappedAtOnce(at('old'), at('new'))).toBe(true)
    const watcher = spawn(
      'perl',
      ['-e', '$| = 1; print "on\\n"; while (!-e $ARGV[1]) { print "empty\\n" if !-e $ARGV[0] } print "end\\n"'].concat([
        at('old'),
        at('stop'),
      ]),
      { stdio: ['ignore', 'pipe', 'inherit'] },
    )
    let told = ''
    const ended = new Promise<void>(resolve => watcher.once('close', () => resolve()))
    await new Promise<void>(resolve =>
      watcher.stdout.on('data', (d: Buffer) => {
        told += d.toString()
        resolve()
      }),
    )
    for (let i = 0; i < 100; i++) expect(swappedAtOnce(at('old'), at('new'))).toBe(true)
    writeFileSync(at('stop'), '')
    await ended
    expect(told).toBe('on\nend\n')
    expect(existsSync(at('old', 'says'))).toBe(true)
  })
})
