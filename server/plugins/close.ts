import { closeDb } from '../db/shared'

export default defineNitroPlugin(nitro => {
  nitro.hooks.hook('close', closeDb)
})
