import { join } from 'node:path'
import { bundleLauncher, LAUNCHER } from './bundle'
import { ROOT } from './server'

// what ./ocho runs when a source of the launcher changed; of its own, since the launcher holds the bundler's call as
// well
await bundleLauncher(join(ROOT, LAUNCHER))
