import { closeDb } from '../db/shared'
import { closeHeavy } from '../heavy/queue'
import { closeLine } from '../live/line'

export default defineNitroPlugin(nitro => {
  nitro.hooks.hook('close', closeLine)
  nitro.hooks.hook('close', closeDb)
  nitro.hooks.hook('close', closeHeavy)
})
