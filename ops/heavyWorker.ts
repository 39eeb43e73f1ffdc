import { cpSync } from 'node:fs'
import { dirname, join, relative } from 'node:path'
import { build } from 'esbuild'
import { fontFiles } from '../server/pdf/fonts'

/** Packages that the server has beside it already. */
const THERE = ['pdfmake', 'qrcode', 'date-fns', '@date-fns/tz', 'zod', 'papaparse', '@fontsource/*']

/** Puts the thread for heavy work beside the built server, as a file of its own. */
export async function buildHeavyWorker(nitro: {
  options: { dev: boolean; output: { serverDir: string } }
}): Promise<void> {
  if (nitro.options.dev) return
  await build({
    entryPoints: [join(import.meta.dirname, '..', 'server', 'heavy', 'worker.ts')],
    outfile: join(nitro.options.output.serverDir, 'heavy-worker.mjs'),
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    external: THERE,
  })
  bringFonts(join(nitro.options.output.serverDir, 'node_modules'))
}

/**
 * The letters of the papers, beside the server like its packages: found by name, they are not seen by what gathers
 * those.
 */
function bringFonts(to: string): void {
  const modules = join(import.meta.dirname, '..', 'node_modules')
  const files = new Set(Object.values(fontFiles()).flatMap(f => Object.values(f) as string[]))
  const packages = new Set([...files].map(f => join(dirname(dirname(f)), 'package.json')))
  for (const file of [...files, ...packages]) cpSync(file, join(to, relative(modules, file)))
}
