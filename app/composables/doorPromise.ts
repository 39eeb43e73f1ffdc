import { TZDate } from '@date-fns/tz'
import { addDays, format, set } from 'date-fns'
import type { DoorView } from '#core/http/door'
import { expectedMinutes, keepable } from '#core/job/minutes'

/** Days from today and hours that a shop promises most; any other is typed. */
const USUAL = [
  [0, 17],
  [1, 12],
  [1, 17],
  [2, 17],
] as const
/** Which of them a promise starts from. */
const START = 2

/**
 * When a bike at the door can be ready: the usual times, what such a job takes here, and the first time that can be
 * kept.
 */
export function useDoorPromise(door: Ref<DoorView | undefined>, zone: Ref<string>, complaint: () => string) {
  const promises = computed(() =>
    USUAL.map(([days, hours]) => {
      const at = set(addDays(new TZDate(new Date(), zone.value), days), {
        hours,
        minutes: 0,
        seconds: 0,
        milliseconds: 0,
      })
      return {
        words: days === 0 ? `Today ${hours}:00` : days === 1 ? `Tomorrow ${hours}:00` : format(at, 'EEEE HH:mm'),
        local: format(at, "yyyy-MM-dd'T'HH:mm"),
        at: wallClock(at, zone.value),
      }
    }),
  )
  const takes = computed(() => expectedMinutes(complaint(), door.value?.took ?? []))
  const proposal = computed(() => {
    const { took = [], promised = [], stands = 1 } = door.value ?? {}
    const first = keepable(
      promises.value.map(p => p.at),
      takes.value.most,
      promised.map(j => ({
        number: j.number,
        promisedAt: wallClock(j.promisedAt, zone.value),
        minutes: expectedMinutes(j.complaint, took).median,
      })),
      wallClock(new Date(), zone.value),
      stands,
    )
    return promises.value.find(p => p.at.getTime() === first?.getTime()) ?? null
  })
  return { promises, usual: promises.value[START]!.local, takes, proposal }
}
