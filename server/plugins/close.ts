import { closeDb } from '../db/shared'
import { closeHeavy } from '../heavy/queue'

export default defineNitroPlugin(nitro => {
  nitro.hooks.hook('close', closeDb)
  nitro.hooks.hook('close', closeHeavy)
})
