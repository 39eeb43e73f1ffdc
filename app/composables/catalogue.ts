import type { StandardsView } from '#core/http/standards'
import { catalogueInForce } from '#core/standards/shopValues'
import { partsOf } from '#core/standards/trio'

/** The catalogue as it counts in this shop: the table, and over it what was measured here. */
export async function useCatalogue() {
  const { data, error, refresh } = await useFetch<StandardsView>('/api/standards', { key: 'standards' })
  const catalogue = computed(() => catalogueInForce(data.value?.values ?? []))
  const parts = computed(() => partsOf(catalogue.value))
  const set = (view: StandardsView) => {
    data.value = view
  }
  return { catalogue, parts, error, refresh, set }
}
