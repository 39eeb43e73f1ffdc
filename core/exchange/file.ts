import { z } from 'zod'
import { moment } from '../http/words'
import { Provenance } from '../quantity/provenance'
import { FigureValue } from '../standards/entry'
import { Kind } from '../standards/kinds'
import { ShopClaim } from '../standards/shopValues'
import { RecordRow } from './recordRow'

/** Name and version of the open format; the published schema is docs/standards.schema.json. */
export const EXCHANGE_FORMAT = 'ocho-standards'
export const EXCHANGE_VERSION = 1

/** One figure of the catalogue as it counted in the shop that wrote the file. */
export const CatalogueRow = z.strictObject({
  kind: Kind,
  entry: z.string(),
  title: z.string(),
  figure: z.string(),
  value: FigureValue,
  unit: z.string(),
  provenance: Provenance,
  source: z.string(),
})
export type CatalogueRow = z.infer<typeof CatalogueRow>

/** A measurement or nickname of a shop, with its day; older ones of the same figure are its history. */
export const ValueRow = z.strictObject({
  ...ShopClaim.shape,
  at: moment('at', 'a UTC time such as 2026-11-25T09:00:00.000Z'),
})
export type ValueRow = z.infer<typeof ValueRow>

/** Everything that leaves and comes in as one JSON file. */
export const ExchangeFile = z.strictObject({
  format: z.literal(EXCHANGE_FORMAT),
  version: z.literal(EXCHANGE_VERSION),
  writtenAt: z.iso.datetime(),
  catalogue: z.array(CatalogueRow),
  values: z.array(ValueRow),
  records: z.array(RecordRow),
})
export type ExchangeFile = z.infer<typeof ExchangeFile>
