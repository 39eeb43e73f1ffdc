import { DEMO_ENV } from '../demo/people'
import { throwawayCluster } from '../ops/testDatabase'
import { join } from 'node:path'
import { bundleLauncher, LAUNCHER } from '../ops/bundle'
import { ROOT, startServer } from '../ops/server'

/** One cluster and one server for all tests; each test has a shop of its own. Tests that stop a server start one. */
export default async function setup(): Promise<() => Promise<void>> {
  await bundleLauncher(join(ROOT, LAUNCHER))
  const { cluster, remove } = await throwawayCluster()
  const server = await startServer({ appUrl: cluster.appUrl, port: 0, env: DEMO_ENV })
  process.env.OCHO_E2E_URL = server.url
  process.env.OCHO_E2E_APP = cluster.appUrl
  return async () => {
    await server.stop()
    await remove()
  }
}
