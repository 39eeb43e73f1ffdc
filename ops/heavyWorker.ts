import { join } from 'node:path'
import { build } from 'esbuild'

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
}
