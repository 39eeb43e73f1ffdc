import { catalogueInForce, type ShopValue } from '../standards/shopValues'
import { EXCHANGE_FORMAT, EXCHANGE_VERSION, type ExchangeFile } from './file'
import type { RecordRow } from './recordRow'

/** Whether a part is of a standard: by its row, or as one of a mix. */
const isOf = (standard: string | undefined, entry: string): boolean =>
  standard === undefined || standard.split('+').includes(entry) || standard === `hub ${entry}`

/**
 * The open file of a shop, or of one standard: its catalogue as it counts now, what it measured with the history, and
 * its records.
 */
export function exchangeFile(
  values: readonly ShopValue[],
  records: readonly RecordRow[],
  writtenAt: string,
  standard?: string,
): ExchangeFile {
  return {
    format: EXCHANGE_FORMAT,
    version: EXCHANGE_VERSION,
    writtenAt,
    catalogue: catalogueInForce(values)
      .filter(e => isOf(standard, e.id))
      .flatMap(e =>
        e.figures.map(f => ({
          kind: e.kind,
          entry: e.id,
          title: e.title,
          figure: f.key,
          value: f.value,
          unit: f.rule.unit,
          provenance: f.provenance,
          source: f.source ?? '',
        })),
      ),
    // people stay at home: who measured is not in the file
    values: values
      .filter(v => isOf(standard, v.entry))
      .map(({ kind, entry, figure, value, note, at }) => ({ kind, entry, figure, value, note, at })),
    records: [...records],
  }
}
