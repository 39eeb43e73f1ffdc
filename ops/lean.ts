import type { Plugin } from 'vite'

/**
 * To make a schema does nothing else, which the bundler cannot see by itself: said at each, one that a page or a worker
 * never parses by is left out, and with the last of them Zod itself. A worker that only reads words and figures of a
 * chapter is a third as large.
 */
export const leanSchemas = (): Plugin => ({
  name: 'lean-schemas',
  enforce: 'pre',
  transform(code, id, options) {
    if (options?.ssr || !/\/core\/.*\.ts$/.test(id) || !/from 'zod'/.test(code)) return
    return { code: code.replace(/(?<![\w.$])z(?=\s*\.\s*\w+\()/g, '/* @__PURE__ */ z'), map: null }
  },
})

/**
 * Leaves out of the browser's Zod what no page asks: JSON Schema, written on the server (`ops/schema.ts`), what
 * a schema tells of its own bounds, and what guards schemas that hold themselves, which none here does (Zod's own small
 * edition goes without it too). Eight kilobytes of the bench page. Should a later Zod be written otherwise, nothing is
 * left out, and the budget's test says so.
 */
export const leanZod = (): Plugin => ({
  name: 'lean-zod',
  enforce: 'pre',
  transform(code, id, options) {
    if (options?.ssr || !id.includes('/zod/v4/classic/schemas.js')) return
    const lean = code
      .replace(/^\s*inst\._zod\.processJSONSchema = .*;$/gm, '')
      .replace(/processors\.aggregateChecks\(inst\)/g, '({})')
      .replace('core.config({ memoizer: core.memoizer() })', '{}')
      .replace(/create(?:Standard|To)JSONSchemaMethod\(this, (?:"input"|"output"|\{\})\)/g, 'undefined')
    return { code: lean, map: null }
  },
})

/**
 * Leaves out of the browser what chapters say on a sheet, leave for the records, refuse and tell as failed: the
 * server alone draws up sheets, keeps records and judges under the job's lock (`server/db/sheets.ts`,
 * `server/db/records.ts`, `mayAppend`), and a chapter that says nothing is whole
 * (`core/chapter/chapter.ts`). Should one be written otherwise, nothing is left out.
 */
export const leanChapters = (): Plugin => ({
  name: 'lean-chapters',
  enforce: 'pre',
  transform(code, id, options) {
    if (options?.ssr || !/core\/(rear|front|brake|hub|cable)\/chapter\.ts$/.test(id)) return
    return {
      code: code.replace(/^ +(facts|figures|faults|standards|measures|refuses|fails)(: rear\w+)?,$/gm, ''),
      map: null,
    }
  },
})

/**
 * Leaves out of the browser's forms what only their developers' tools ask, and groups of lines, which no form here has:
 * five kilobytes of every page with a form. Should a later version be written otherwise, nothing is left out.
 */
export const leanForms = (): Plugin => ({
  name: 'lean-forms',
  enforce: 'pre',
  transform(code, id, options) {
    if (options?.ssr || !id.includes('/@tanstack/')) return
    if (id.endsWith('/form-core/dist/esm/EventClient.js'))
      return { code: 'export const formEventClient = { on: () => () => {}, emit() {} }', map: null }
    if (id.endsWith('/vue-form/dist/esm/useForm.js'))
      return { code: code.replace(/^import \{ FormGroup \}.*$/m, 'const FormGroup = null;'), map: null }
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
    'IndexRight',
    'StagePathAsked',
    'PassStrip',
    'FrictionLever',
    'LikeShown',
    'keyMeanings',
    'MeasureLink',
  ],
  // what one bench alone shows stands with it
  ...['CauseBars', 'HeardKeys', 'NextMove', 'heard', 'DoubtfulFigure'],
  ...[
    'GaugePad',
    'GearPick',
    'JobBench',
    'KeyList',
    'NoDerailleur',
    'OffsetPad',
    'SawKeys',
    'SchoolPick',
    'SomethingElse',
  ],
)
const COMPOSABLES = oneOf(
  ...['bench', 'benchKeys', 'habits', 'like', 'live', 'schools', 'stageLink', 'thirdHand', 'tick', 'trouble'],
)
const BENCH = new RegExp(
  `app/${oneOf(
    `components/bench/(?!${APART}\\.)`,
    `composables/${COMPOSABLES}`,
    'workers/latest',
    'drawings/(along|columns)',
    'stores/(ledger|outbox)',
  )}`,
)

/** What is asked of the advice and drawn of its answer: by the rear bench, a stand on the Floor, a cable's friction. */
const ASKED = new RegExp(
  oneOf(
    'app/workers/(question|useAdvice)',
    'app/drawings/(MisfitStrip|BarrelRule)',
    'core/advice/(asSensed|explain|know|moveKey|moveWords|picture|schools|woundUntil)\\.',
    'core/ledger/belief',
    'core/procedure/complaints',
    'core/rear/(aim|chain|declined|ofState|stops)\\.',
  ),
)

/** Nuxt's lists of everything it offers: what stands only in them is not asked for by who reads them. */
const LISTS = /nuxt\/dist\/app\/(index|composables\/index)\.js$/

/** What every page begins with: all that the browser's entry reads, one after the other, before anything is shown. */
function begunWith(entry: string, importedBy: (id: string) => readonly string[]): Set<string> {
  const found = new Set<string>()
  const next = [entry]
  for (let id = next.pop(); id !== undefined; id = next.pop()) {
    if (found.has(id) || LISTS.test(id)) continue
    found.add(id)
    next.push(...importedBy(id))
  }
  return found
}

/**
 * Puts what every bench shows into one file of the browser's build, and what every page begins with into another: left
 * alone, the bundler halves it when some panel is read by two pages, and two halves pack two kilobytes worse.
 */
export const benchInOneFile = (): Plugin => {
  let begun: Set<string> | null = null
  const entries = new Set<string>()
  return {
    name: 'bench-in-one-file',
    buildStart: () => void (begun = null),
    moduleParsed: ({ id, isEntry }) => void (isEntry && entries.add(id)),
    outputOptions: options =>
      options.dir?.includes('client')
        ? {
            ...options,
            manualChunks: (id, { getModuleInfo }) => {
              if (BENCH.test(id) || id.includes('/node_modules/comlink/')) return 'bench'
              if (ASKED.test(id)) return 'asked'
              const entry = begun ? undefined : [...entries].find(m => getModuleInfo(m)?.isEntry)
              begun ??= entry ? begunWith(entry, m => getModuleInfo(m)?.importedIds ?? []) : new Set()
              return begun.has(id) ? 'begin' : undefined
            },
            onlyExplicitManualChunks: true,
          }
        : null,
  }
}
