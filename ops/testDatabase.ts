import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { TestProject } from 'vitest/node'
import { startCluster, type Cluster } from './cluster'
import { openDatabase } from './database'

/** A cluster of the tests' own, in a folder of its own, gone afterwards. */
export async function throwawayCluster(): Promise<{ cluster: Cluster; remove(): Promise<void> }> {
  const folder = mkdtempSync(join(tmpdir(), 'ocho-test-'))
  const cluster = await startCluster(folder, () => undefined)
  await openDatabase(cluster)
  return {
    cluster,
    async remove() {
      await cluster.stop()
      rmSync(folder, { recursive: true, force: true })
    },
  }
}

export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const { cluster, remove } = await throwawayCluster()
  project.provide('ownerUrl', cluster.ownerUrl)
  project.provide('appUrl', cluster.appUrl)
  return remove
}
