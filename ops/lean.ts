import type { Plugin } from 'vite'

/**
 * Leaves out of the browser's Zod what no page asks: JSON Schema, which is written on the server (`ops/schema.ts`). Six
 * kilobytes of the bench page. Should a later Zod be written otherwise, nothing is left out, and the budget's test says
 * so.
 */
export const leanZod = (): Plugin => ({
  name: 'lean-zod',
  enforce: 'pre',
  transform(code, id, options) {
    if (options?.ssr || !id.includes('/zod/v4/classic/schemas.js')) return
    const lean = code
      .replace(/^\s*inst\._zod\.processJSONSchema = .*;$/gm, '')
      .replace(/create(?:Standard|To)JSONSchemaMethod\(this, (?:"input"|"output"|\{\})\)/g, 'undefined')
    return { code: lean, map: null }
  },
})

/**
 * Leaves out of the browser what chapters say on a sheet and leave for the records: the server alone draws up sheets
 * and keeps records (`server/db/sheets.ts`, `server/db/records.ts`), and a chapter that says nothing is whole
 * (`core/chapter/chapter.ts`). Should one be written otherwise, nothing is left out.
 */
export const leanChapters = (): Plugin => ({
  name: 'lean-chapters',
  enforce: 'pre',
  transform(code, id, options) {
    if (options?.ssr || !/core\/(rear|front|brake|hub)\/chapter\.ts$/.test(id)) return
    return { code: code.replace(/^ +(facts|figures|faults)(: rear\w+)?,$/gm, ''), map: null }
  },
})

/**
 * Nuxt's composables do nothing by being read, which its package does not say: Pinia's plugin asks for all of them by
 * one name, and so every page's first file held what only some pages fetch with. Now it stands with who uses it.
 */
export const leanNuxt = (): Plugin => ({
  name: 'lean-nuxt',
  transform: (code, id, options) =>
    !options?.ssr && /nuxt\/dist\/app\/(index|composables\/\w+)\.js$/.test(id)
      ? { code, map: null, moduleSideEffects: false }
      : null,
})

/** What every bench shows at once comes in one file, which packs smaller than thirty. */
const oneOf = (...names: string[]) => `(${names.join('|')})`
const APART = oneOf(
  ...[
    'ChanceBars',
    'JobNotHere',
    'EdgeStrip',
    'PendingTurn',
    'FoundPhotos',
    'HeadFirst',
    'PassStrip',
    'FrictionLever',
    'LikeShown',
    'keyMeanings',
    'MeasureLink',
  ],
  ...['GaugePad', 'GearPick', 'JobBench', 'KeyList', 'NoDerailleur', 'OffsetPad', 'SchoolPick', 'SomethingElse'],
)
const COMPOSABLES = oneOf(
  ...[
    'bench',
    'benchKeys',
    'habits',
    'like',
    'live',
    'rearBench',
    'schools',
    'stageLink',
    'thirdHand',
    'tick',
    'trouble',
  ],
)
const DRAWINGS = oneOf('SprocketLanes', 'MisfitStrip', 'BarrelRule', 'along', 'columns')
const BENCH = new RegExp(
  `app/${oneOf(
    `components/(bench|rear)/(?!${APART})`,
    `composables/${COMPOSABLES}`,
    'workers/(useAdvice|latest)',
    `drawings/${DRAWINGS}`,
    'stores/(ledger|outbox)',
  )}`,
)

/** Puts what every bench shows into one file of the browser's build. */
export const benchInOneFile = (): Plugin => ({
  name: 'bench-in-one-file',
  outputOptions: options =>
    options.dir?.includes('client')
      ? {
          ...options,
          manualChunks: id => (BENCH.test(id) ? 'bench' : undefined),
          onlyExplicitManualChunks: true,
        }
      : null,
})
