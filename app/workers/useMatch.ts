import { wrap, type Remote } from 'comlink'
import type { Fix } from '#core/standards/fixes'
import type { CassettePart, Cell, DerailleurPart, PartsOfShop, ShifterPart } from '#core/standards/trio'
import type { MatchApi } from './match'

export type MatrixAnswer = { is: 'thinking' } | { is: 'ready'; cells: Cell[][] } | { is: 'failed' }
type Whole = { shifter: ShifterPart; derailleur: DerailleurPart; cassette: CassettePart; parts: PartsOfShop }

/** The matrix of the chosen derailleur and what would fix the chosen trio, worked out beside the page; late answers are dropped. */
export function useMatch(
  matrixOf: Ref<{ derailleur: DerailleurPart; parts: PartsOfShop } | null>,
  fixesOf: Ref<Whole | null>,
) {
  const matrix = shallowRef<MatrixAnswer>({ is: 'thinking' })
  /** Null while they are looked for. */
  const fixes = shallowRef<Fix[] | null>(null)
  let worker: Worker | undefined
  onMounted(() => {
    worker = new Worker(new URL('./match.ts', import.meta.url), { type: 'module' })
    worker.onerror = () => {
      matrix.value = { is: 'failed' }
    }
    const api: Remote<MatchApi> = wrap<MatchApi>(worker)
    // reactive proxies do not cross into a worker
    const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T
    let askedMatrix = 0
    watch(
      matrixOf,
      async now => {
        if (!now) return
        const mine = ++askedMatrix
        try {
          const { cells, tookMs } = await api.matrix(...plain([now.derailleur, now.parts] as const))
          performance.measure('matrix', { start: performance.now() - tookMs }) // read by bench/page.ts
          if (mine === askedMatrix) matrix.value = { is: 'ready', cells }
        } catch {
          if (mine === askedMatrix) matrix.value = { is: 'failed' }
        }
      },
      { immediate: true },
    )
    let askedFixes = 0
    watch(
      fixesOf,
      async now => {
        const mine = ++askedFixes
        fixes.value = null
        if (!now) return
        const found = await api
          .fixes(...plain([now.shifter, now.derailleur, now.cassette, now.parts] as const))
          .catch(() => [])
        if (mine === askedFixes) fixes.value = found
      },
      { immediate: true },
    )
  })
  onScopeDispose(() => worker?.terminate())
  return {
    matrix: readonly(matrix) as Readonly<Ref<MatrixAnswer>>,
    fixes: readonly(fixes) as Readonly<Ref<Fix[] | null>>,
  }
}
