<script setup lang="ts">
import { Done } from '#core/http/answers'
import { ImportView, MAX_IMPORT_BYTES } from '#core/http/standards'
import { KIND_WORDS, ruleOf, type Kind } from '#core/standards/kinds'
import { NICKNAME } from '#core/standards/shopValues'
import { countOf } from '#core/quantity/words'

useHead({ title: 'Files · Standards · Ocho' })
const session = useSession()
const owner = computed(() => session.now?.person?.role === 'owner')
const OUT = [
  { as: 'json', what: 'Everything', how: 'one JSON file: catalogue, what was measured here with its history, records' },
  { as: 'values', what: 'What was measured here', how: 'CSV, a row a measurement' },
  { as: 'records', what: 'Records', how: 'CSV, a row a figure of a visit; bikes by number, no names' },
  { as: 'catalogue', what: 'Catalogue as it counts here', how: 'CSV, a row a figure with its unit and source' },
] as const

const file = shallowRef<File | null>(null)
const view = shallowRef<ImportView | null>(null)
const trouble = ref('')
const busy = ref<'' | 'looking' | 'taking'>('')
const share = ref(0)
const BUSY_WORDS = { looking: 'Reading it', taking: 'Taking it in' }
const taken = useTemplateRef<{ refresh(): Promise<void> }>('taken')
const kindOf = (f: File): 'json' | 'csv' | null =>
  /\.json$/i.test(f.name) ? 'json' : /\.csv$/i.test(f.name) ? 'csv' : null

/** Asked first, so that the browser fetches a file and not a refusal. */
async function takeOut(as: string) {
  const asked = await asOwner(() => ask(Done, '/api/session/confirm'))
  trouble.value = sayTrouble(asked)
  if (asked.is === 'done') location.assign(`/api/standards/export?as=${as}`)
}
async function send(take: 'look' | 'all' | 'good') {
  const chosen = file.value
  if (!chosen) return
  const kind = kindOf(chosen)
  trouble.value = ''
  if (!kind) return void (trouble.value = 'Choose a file that ends in .json or .csv')
  if (chosen.size > MAX_IMPORT_BYTES)
    return void (trouble.value = `The file is larger than ${MAX_IMPORT_BYTES / 1024 / 1024} MB: split it and send the parts`)
  busy.value = take === 'look' ? 'looking' : 'taking'
  share.value = 0
  const type = kind === 'json' ? 'application/json' : 'text/csv'
  const url = `/api/standards/import?take=${take}&kind=${kind}`
  const asked = await asOwner(() => askWithFile(ImportView, url, chosen, type, told => (share.value = told)))
  // the list first: whoever reads "taken" and takes it back at once must not hit the file before it
  if (take !== 'look') await taken.value?.refresh()
  busy.value = ''
  if (asked.is === 'done') view.value = asked.value
  trouble.value = sayTrouble(asked)
}
function choose(event: Event) {
  const chosen = pickedFile(event)
  if (!chosen) return
  file.value = chosen
  view.value = null
  void send('look')
}
function again() {
  file.value = view.value = null
  trouble.value = ''
}
const good = computed(() => (view.value ? view.value.values.count + view.value.records.count : 0))
const figureName = (kind: string, figure: string) =>
  figure === NICKNAME ? 'name here' : (ruleOf(kind as Kind, figure)?.what.toLowerCase() ?? figure)
const kindName = (kind: string) => KIND_WORDS[kind as Kind]?.one ?? kind
const rows = (n: number) => countOf(n, 'row')
</script>

<template>
  <div>
    <PageHead title="Standards"><StandardsNav /></PageHead>
    <main class="mx-auto grid max-w-6xl gap-x-10 gap-y-8 px-4 py-5 sm:px-6 lg:grid-cols-[1fr_1.4fr]">
      <p v-if="!owner" class="stopped lg:col-span-2">An owner writes and takes files: let one unlock this device.</p>
      <template v-else>
        <section>
          <h2 class="text-lg font-bold">Out</h2>
          <ul class="mt-2 border-t-2 border-ink">
            <li v-for="o in OUT" :key="o.as" class="border-b border-rule">
              <a
                :href="`/api/standards/export?as=${o.as}`"
                download
                class="block min-h-14 py-2"
                :data-test="`export-${o.as}`"
                @click.prevent="takeOut(o.as)"
                ><b class="underline underline-offset-4">{{ o.what }}</b><span class="small block">{{ o.how }}</span></a
              >
            </li>
          </ul>
          <p class="small mt-2">An open format: its JSON Schema is docs/standards.schema.json.</p>
        </section>
        <section>
          <h2 class="text-lg font-bold">In</h2>
          <p class="mb-2">Choose a file and see what it would change. Nothing is taken before you say so.</p>
          <div class="flex flex-wrap items-center gap-x-3">
            <label class="also cursor-pointer"
              >{{ file ? 'Another file' : 'Choose a file'
              }}<input
                type="file"
                accept=".json,.csv,application/json,text/csv"
                class="sr-only"
                :disabled="busy !== ''"
                data-test="file"
                @change="choose"
            /></label>
            <span v-if="file" class="min-w-0 font-semibold break-words" data-test="file-name">{{ file.name }}</span>
          </div>
          <div v-if="busy" class="mt-3" data-test="busy">
            <p class="mb-1 font-semibold" role="status">{{ BUSY_WORDS[busy] }}</p>
            <ProgressBar :share :what="BUSY_WORDS[busy]" />
          </div>
          <p v-if="trouble" class="stopped mt-3" role="alert">{{ trouble }}</p>
          <div v-if="view" class="mt-4" data-test="preview">
            <p v-if="view.taken" class="text-xl font-bold text-clean" role="status" data-test="taken">
              Taken: {{ countOf(view.values.count, 'value') }} and {{ countOf(view.records.count, 'record') }}.
            </p>
            <p v-else class="text-xl font-bold" role="status">
              {{ rows(view.rows) }}: {{ view.values.count }} would change a value, {{ view.records.count }} would add a
              record, {{ view.same }} are here already{{ view.refused.count ? `, ${view.refused.count} refused` : '' }}.
            </p>
            <template v-if="view.refused.count">
              <h3 class="mt-3 font-bold text-stop">Refused</h3>
              <ul class="max-h-56 overflow-y-auto border-t border-rule" data-test="refused">
                <li v-for="(r, i) in view.refused.listed" :key="i" class="border-b border-rule py-1.5">
                  <b class="figure">{{ r.where }}{{ r.column ? `, ${r.column}` : '' }}</b> {{ r.message }}
                </li>
                <li v-if="view.refused.count > view.refused.listed.length" class="py-1.5 text-soft">
                  and {{ view.refused.count - view.refused.listed.length }} more
                </li>
              </ul>
            </template>
            <template v-if="view.values.count">
              <h3 class="mt-3 font-bold">Values</h3>
              <ul class="max-h-72 overflow-y-auto border-t border-rule" data-test="changes">
                <li
                  v-for="(v, i) in view.values.listed"
                  :key="i"
                  class="grid grid-cols-[1fr_auto] gap-x-3 border-b border-rule py-1.5"
                >
                  <span
                    >{{ kindName(v.kind) }} <b class="figure">{{ v.entry }}</b>,
                    {{ figureName(v.kind, v.figure) }}</span
                  ><span class="figure text-right"
                    ><span class="text-soft">{{ v.from }}</span> → <b>{{ v.to }}</b></span
                  >
                </li>
                <li v-if="view.values.count > view.values.listed.length" class="py-1.5 text-soft">
                  and {{ view.values.count - view.values.listed.length }} more
                </li>
              </ul>
            </template>
            <template v-if="view.records.count">
              <h3 class="mt-3 font-bold">Records</h3>
              <p class="figure">{{ view.records.byStandard.map(s => `${s.standard} ${s.count}`).join(', ') }}</p>
            </template>
            <div v-if="!view.taken" class="mt-4 flex flex-wrap gap-2">
              <button
                v-if="good && !view.refused.count"
                type="button"
                class="act"
                :disabled="busy !== ''"
                data-test="take-all"
                @click="send('all')"
              >
                Take {{ rows(good) }}
              </button>
              <button
                v-if="good && view.refused.count"
                type="button"
                class="act"
                :disabled="busy !== ''"
                data-test="take-good"
                @click="send('good')"
              >
                Take only the {{ countOf(good, 'good one') }}
              </button>
              <p v-if="!good" class="text-soft">There is nothing in it to take.</p>
              <button type="button" class="quiet" @click="again">Leave it</button>
            </div>
          </div>
          <TakenInList ref="taken" />
        </section>
      </template>
    </main>
    <ConfirmOwner />
  </div>
</template>
