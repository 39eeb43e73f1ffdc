import { travelSchema } from '#core/travel/schema'
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { exchangeSchema } from '#core/exchange/schema'
import { ROOT } from './server'

/** Writes the published schema of the open format anew: npm run schema. A test holds it to the code. */
writeFileSync(join(ROOT, 'docs', 'standards.schema.json'), JSON.stringify(exchangeSchema(), null, 2) + '\n')
writeFileSync(join(ROOT, 'docs', 'travel.schema.json'), JSON.stringify(travelSchema(), null, 2) + '\n')
