import type { Leaves } from '#core/job/events'
import type { Declinable } from '#core/job/declined'
import { Sheet } from '#core/ledger/sheet'
import type { Asked } from './ask'

/** Hands the open job back, in whichever way it leaves, from whichever of its pages. */
export function useHandBack(): (how: Leaves, fault?: Declinable | null) => Promise<Asked<Sheet>> {
  const ledger = useLedger()
  // one id for one hand-back: asking twice hands back once
  let id = newUuid()
  return async (how, fault = null) => {
    // what was just tapped is on its way: it goes first
    await ledger.refresh()
    const waits = ledger.waiting.length
    const message = `${waits} still waiting to be sent: hand back when all is saved`
    if (waits) return { is: 'refused', status: 409, message, issues: [] }
    const asked = await ask(Sheet, `/api/jobs/${ledger.number}/hand-back`, {
      method: 'POST',
      body: { id, basedOn: ledger.lastSeq, how, fault },
    })
    if (asked.is === 'done') id = newUuid()
    return asked
  }
}
