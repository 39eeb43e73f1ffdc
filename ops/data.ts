import { homedir } from 'node:os'
import { join, resolve } from 'node:path'
import { addressesOf, answers, startCluster, type Addresses } from './cluster'
import { lastPort, readSecrets, takeFolder } from './folder'
import { ClusterTrouble } from './postgres'
import { say } from './say'

/** Whose data: the demo's, the shop's, or a demo's to work on the code with. */
export type Kind = 'demo' | 'shop' | 'dev'

/** Demo and real shops never share a cluster: the demo's passwords are published. */
export function dataFolder(kind: Kind): string {
  const base =
    process.env.OCHO_DATA ?? (process.getuid?.() === 0 ? '/var/lib/ocho' : join(homedir(), '.local', 'share', 'ocho'))
  return join(resolve(base), kind)
}

/** The database of a kind: the one that runs, untouched, or one that is started for this and stopped after it. */
export async function withDatabase<T>(kind: Kind, work: (cluster: Addresses) => Promise<T>): Promise<T> {
  const folder = dataFolder(kind)
  const release = await takeFolder(folder)
  if (!release) {
    const secrets = readSecrets(folder)
    const port = lastPort(folder)
    if (!secrets || !port || !(await answers(addressesOf(port, secrets).of('postgres'))))
      throw new ClusterTrouble('Ocho is starting or its database is down: try again in a minute')
    return work(addressesOf(port, secrets))
  }
  const cluster = await startCluster(folder, say)
  try {
    return await work(cluster)
  } finally {
    await cluster.stop()
    release()
  }
}

/** A backup of nothing would look like one of something. */
export async function openIfThere(cluster: Addresses): Promise<void> {
  if (!(await answers(cluster.ownerUrl))) throw new ClusterTrouble('There is no data here yet: start Ocho first')
}
