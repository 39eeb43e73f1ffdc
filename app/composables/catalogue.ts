import { partsOf } from '#core/standards/partsOfShop'
import { StandardsView } from '#core/http/standards'
import { ownFigures, standardsWith } from '#core/standards/inForce'
import { catalogueInForce } from '#core/standards/shopValues'

/** The catalogue as it counts in this shop: the table, and over it what was measured here. */
export async function useCatalogue() {
  const { data, error, refresh } = await useRead(StandardsView, '/api/standards', { key: 'standards' })
  const catalogue = computed(() => catalogueInForce(data.value?.values ?? []))
  const own = computed(() => ownFigures(data.value?.values ?? []))
  /** What counts in sums. */
  const standards = computed(() => standardsWith(own.value))
  const parts = computed(() => partsOf(catalogue.value))
  const set = (view: StandardsView) => {
    data.value = view
  }
  return { catalogue, own, standards, parts, error, refresh, set }
}
