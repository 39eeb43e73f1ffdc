<script setup lang="ts">
import { RecordsOfStandard } from '#core/http/records'
import { recordRule } from '#core/records/chapters'
import { FloorView } from '#core/http/floor'
import { JobNumber } from '#core/http/job'
import { readTypedParts, typedFromParts, withMeasured, type TypedParts } from '#core/rear/typedParts'
import { reduce } from '#core/ledger/reduce'
import { questionFor } from '#core/records/question'
import { EntriesAnswer } from '#core/ledger/events'

useHead({ title: 'Measure · Standards · Ocho' })
const { catalogue, parts, error } = await useCatalogue()
const { data: floor } = await useRead(FloorView, '/api/floor', { key: 'floor-for-measure' })
const outbox = useOutbox()
const route = useRoute()
const wanted = JobNumber.safeParse(route.query.job)
const open = computed(() => floor.value?.jobs.filter(j => j.closedAt === null) ?? [])
const job = ref(
  wanted.success && open.value.some(j => j.number === wanted.data) ? wanted.data : (open.value[0]?.number ?? 0),
)
const trouble = ref('')
/** Measured numbers far from what this shop measured of such parts wait for a word. */
const doubtful = shallowRef<{ change: Partial<TypedParts>; question: string } | null>(null)
async function questionOf(change: Partial<TypedParts>): Promise<string | null> {
  const told = [
    {
      standard: change.shifterStandard,
      figure: 'pull',
      value: change.shifterKnown === 'measured' ? Number(change.pullMm) : NaN,
    },
    {
      standard: change.derailleurStandard,
      figure: 'ratio',
      value: change.derailleurKnown === 'measured' ? Number(change.ratio) : NaN,
    },
    {
      standard: change.cassetteStandard,
      figure: 'pitch',
      value: change.cassetteKnown === 'measured' ? Number(change.pitchMm) : NaN,
    },
  ]
  for (const { standard, figure, value } of told) {
    if (!standard || !Number.isFinite(value)) continue
    const asked = await ask(RecordsOfStandard, `/api/standards/records/${encodeURIComponent(standard)}`)
    const question =
      asked.is === 'done' ? questionFor(figure, value, asked.value.figures.find(f => f.figure === figure)?.seen) : null
    if (question) return `${recordRule(figure)!.what}: ${question}`
  }
  return null
}
const done = ref<number | null>(null)
const busy = ref(false)

/** Puts the bike's drivetrain right by what was measured; what was not measured stays as it was. */
async function use(change: Partial<TypedParts>, sure = false) {
  trouble.value = ''
  done.value = null
  // tapped again, or another bike chosen meanwhile: it is this one's, once
  busy.value = true
  trouble.value = await writeDown(job.value, change, sure)
  busy.value = false
}
/** What stands in the way, in words; empty where it is written down, or a doubtful figure waits for a word. */
async function writeDown(number: number, change: Partial<TypedParts>, sure: boolean): Promise<string> {
  const question = sure ? null : await questionOf(change)
  doubtful.value = question ? { change, question } : null
  if (question) return ''
  const log = await ask(EntriesAnswer, `/api/jobs/${number}/events`)
  if (log.is !== 'done') return sayTrouble(log)
  const { parts: now } = reduce(log.value.entries).rear
  if (!now) return 'That job has no drivetrain yet'
  const typed = withMeasured(typedFromParts(now, now.barrel.turnsOut), change)
  const read = readTypedParts({ ...typed, turnsOut: now.barrel.assumed ? '' : typed.turnsOut })
  if (read.is === 'wrong') return Object.values(read.fields).join('. ')
  const event = { kind: 'parts', parts: { ...read.parts, barrel: now.barrel } } as const
  await outbox.put(number, event, log.value.entries.at(-1)?.seq ?? 0)
  const stopped = sayTrouble(outbox.trouble)
  if (!outbox.trouble) done.value = number
  if (outbox.trouble?.is === 'refused') outbox.clearTrouble()
  return stopped
}
const ids = { job: useId() }
</script>

<template>
  <div>
    <PageHead title="Standards"><StandardsNav /></PageHead>
    <main class="mx-auto max-w-[1440px] px-4 py-4 sm:px-6">
      <p v-if="error" class="stopped mb-3" role="alert">{{ OFFLINE_WORDS }}</p>
      <MeasuringAid :parts="parts" :catalogue="catalogue" use-words="">
        <template #use><span /></template>
        <template #more="{ usable, canUse }">
          <div v-if="open.length" class="flex flex-wrap items-end gap-2">
            <div class="min-w-40 flex-1">
              <label class="label" :for="ids.job">For which bike</label
              ><select :id="ids.job" v-model.number="job" class="field" data-test="for-job">
                <option v-for="j in open" :key="j.number" :value="j.number">{{ j.tag }}: {{ j.bike }}</option>
              </select>
            </div>
            <button type="button" class="act" :disabled="!canUse || busy" data-test="use-for" @click="use(usable)">
              {{ busy ? 'Writing it down' : `This is tag ${open.find(j => j.number === job)?.tag ?? ''}’s drivetrain` }}
            </button>
          </div>
          <p v-else class="text-soft">
            No bike is here. <NuxtLink class="underline" to="/take-in">Take one in</NuxtLink>, and measure there.
          </p>
          <DoubtfulFigure
            v-if="doubtful"
            :question="doubtful.question"
            @keep="use(doubtful.change, true)"
            @leave="doubtful = null"
          />
          <p v-if="trouble" class="stopped" role="alert">{{ trouble }}</p>
          <p v-if="done !== null" class="font-semibold text-clean" role="status" data-test="used">
            Written down. <NuxtLink class="underline" :to="`/jobs/${done}`">See what goes together</NuxtLink>; it can be
            taken back there.
          </p>
        </template>
      </MeasuringAid>
    </main>
  </div>
</template>
