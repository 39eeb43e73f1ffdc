<!-- A run's pieces: from a template, each measured and typed on its own. -->
<script setup lang="ts">
import { typedNumber, typedNumbers } from '#core/quantity/typed'
import { HOUSINGS, housingRefused, usualHousing, type RunName } from '#core/cable/housing'
import {
  asRead,
  CONDITION_WORDS,
  CONDITIONS,
  innerNeededMm,
  innerToTake,
  LENGTH_READ,
  MU,
  Run,
  smallParts,
  type LengthRead,
  type Piece,
} from '#core/cable/run'
import { RUN_TEMPLATES, templateRun } from '#core/cable/templates'
import type { TemplateView } from '#core/http/cables'

const props = defineProps<{
  name: RunName
  run: Run | null
  own: readonly TemplateView[]
  last: Run | null
  chosen: string | null
  mayKeep: boolean
}>()
const emit = defineEmits<{ keep: [run: Run]; choose: [piece: string | null]; template: [name: string] }>()
const offered = computed(() => [
  // its wire has run since: whatever it was then, it is not new now
  ...(props.last
    ? [
        {
          id: 'last',
          name: 'As it left last time',
          of: () =>
            asRead(
              { ...props.last!, condition: props.last!.condition === 'new' ? 'used' : props.last!.condition },
              'last',
              '',
            ),
        },
      ]
    : []),
  ...props.own
    .filter(t => t.runs.some(r => r.run === props.name))
    .map(t => ({
      id: t.id,
      name: t.name,
      of: () =>
        asRead(
          t.runs.find(r => r.run === props.name)!,
          'template',
          t.name,
        ),
    })),
  ...RUN_TEMPLATES.filter(t => t.runs.some(r => r.run === props.name)).map(t => ({
    id: t.id,
    name: t.name,
    of: () => templateRun(t.id, props.name),
  })),
])
const trouble = ref('')
function put(run: unknown) {
  const read = Run.safeParse(run)
  if (!read.success) return void (trouble.value = read.error.issues[0].message)
  trouble.value = ''
  emit('keep', read.data)
}
const start = (id: string) => {
  const t = offered.value.find(o => o.id === id)
  if (t) put(t.of())
}
const readOf = (p: Piece) => (p.kind === 'guide' ? undefined : p.read)
const piece = computed(() => props.run?.pieces.find(p => p.name === props.chosen) ?? null)
const draft = ref({ name: '', length: '', bends: '', radius: '', of: '', by: 'old' as LengthRead, why: '' })
// by what it says, not by which object says it: an entry that comes back from the server must not wipe what is being typed
watch(
  () => JSON.stringify(piece.value),
  () => {
    const p = piece.value
    if (!p) return
    const bends = p.kind === 'housing' ? p.bends : p.kind === 'guide' ? [p.bend] : []
    draft.value = {
      name: p.name,
      length: p.kind === 'guide' ? '' : String(p.lengthMm),
      bends: bends.map(b => b.deg).join(' '),
      radius: String(bends[0]?.radiusMm ?? 70),
      of: p.kind === 'housing' ? p.of : '',
      by: readOf(p)?.by ?? 'old',
      why: readOf(p)?.why ?? '',
    }
  },
  { immediate: true },
)
/** A length typed anew is no longer the one it came with: taken as read off the old piece until somebody says otherwise. */
function typeLength(text: string) {
  draft.value.length = text
  if (draft.value.by !== 'old' && draft.value.by !== 'bike') draft.value = { ...draft.value, by: 'old', why: '' }
}

function save() {
  const p = piece.value
  if (!p || !props.run) return
  const bends = typedNumbers(draft.value.bends).map(deg => ({ deg, radiusMm: typedNumber(draft.value.radius) }))
  const read = { by: draft.value.by, why: draft.value.why }
  const changed =
    p.kind === 'housing'
      ? { ...p, name: draft.value.name, lengthMm: typedNumber(draft.value.length), of: draft.value.of, bends, read }
      : p.kind === 'bare'
        ? { ...p, name: draft.value.name, lengthMm: typedNumber(draft.value.length), read }
        : { ...p, name: draft.value.name, bend: bends[0] ?? { deg: 0, radiusMm: 60 } }
  put({ ...props.run, pieces: props.run.pieces.map(x => (x === p ? changed : x)) })
  if (!trouble.value) emit('choose', draft.value.name)
}
function add(kind: Piece['kind']) {
  const base = props.run ?? { run: props.name, condition: 'used', tailMm: 40, pieces: [] }
  let n = base.pieces.length + 1
  while (base.pieces.some(p => p.name === `piece ${n}`)) n++
  const name = `piece ${n}`
  const made =
    kind === 'housing'
      ? { kind, name, lengthMm: 300, of: usualHousing(props.name), bends: [{ deg: 90, radiusMm: 80 }] }
      : kind === 'bare'
        ? { kind, name, lengthMm: 400 }
        : { kind, name, bend: { deg: 75, radiusMm: 60 } }
  put({ ...base, pieces: [...base.pieces, made] })
  if (!trouble.value) emit('choose', name)
}
function drop() {
  if (props.run && piece.value) {
    put({ ...props.run, pieces: props.run.pieces.filter(p => p !== piece.value) })
    emit('choose', null)
  }
}
const refused = computed(() =>
  draft.value.of ? housingRefused(props.name, draft.value.of as (typeof HOUSINGS)[number]) : null,
)
const templateName = ref('')
</script>

<template>
  <div class="grid gap-3">
    <template v-if="!run">
      <p class="text-2xl leading-tight font-bold">How does this run go?</p>
      <div class="grid gap-1">
        <button
          v-for="o in offered"
          :key="o.id"
          type="button"
          class="also"
          :data-test="`template-${o.id}`"
          @click="start(o.id)"
        >
          {{ o.name }}
        </button>
      </div>
      <button type="button" class="quiet justify-self-start" data-test="from-nothing" @click="add('housing')">
        Piece by piece
      </button>
      <p class="small">
        Template lengths are usual ones, from memory: measure the old piece and match it if it was right.
      </p>
    </template>
    <template v-else>
      <div class="grid grid-cols-2 gap-1">
        <button
          v-for="c in CONDITIONS"
          :key="c"
          type="button"
          class="also min-h-11! px-2.5! text-sm"
          :class="{ 'bg-act! text-act-ink!': run.condition === c }"
          :aria-pressed="run.condition === c"
          :data-test="`condition-${c}`"
          @click="put({ ...run, condition: c })"
        >
          {{ CONDITION_WORDS[c] }} <span class="figure font-normal">μ {{ MU[c] }}</span>
        </button>
      </div>
      <form v-if="piece" class="grid gap-2 border-t border-rule pt-2" novalidate @submit.prevent="save">
        <TextField v-model="draft.name" label="Piece" />
        <div class="grid grid-cols-2 gap-2">
          <TextField
            v-if="piece.kind !== 'guide'"
            :model-value="draft.length"
            label="Length, mm"
            mono
            inputmode="numeric"
            @update:model-value="typeLength"
          />
          <TextField
            v-if="piece.kind !== 'bare'"
            v-model="draft.bends"
            :label="piece.kind === 'guide' ? 'Bend, °' : 'Bends, °'"
            mono
            inputmode="decimal"
          />
          <TextField v-if="piece.kind !== 'bare'" v-model="draft.radius" label="Radius, mm" mono inputmode="numeric" />
          <label v-if="piece.kind === 'housing'" class="label"
            >Housing<select v-model="draft.of" class="field" data-test="housing-kind">
              <option v-for="h in HOUSINGS" :key="h" :value="h">{{ h }}</option>
            </select></label
          >
        </div>
        <div v-if="piece.kind !== 'guide'" class="grid gap-2">
          <label class="label"
            >Length read from<select v-model="draft.by" class="field" data-test="read-by">
              <option v-for="(r, by) in LENGTH_READ" :key="by" :value="by">{{ r.words }}, ±{{ r.errorMm }}</option>
            </select></label
          >
          <TextField v-model="draft.why" label="Why that" />
        </div>
        <p v-if="refused" class="stopped" role="alert" data-test="refused-housing">{{ refused }}</p>
        <div class="flex flex-wrap gap-2">
          <button class="act flex-1 justify-center" :disabled="refused !== null" data-test="save-piece">Keep it</button
          ><button type="button" class="quiet text-stop" @click="drop">Take it out</button>
        </div>
      </form>
      <p v-else class="text-soft">Touch a piece in the picture to measure it.</p>
      <p v-if="trouble" class="stopped" role="alert" data-test="piece-trouble">{{ trouble }}</p>
      <div class="grid grid-cols-3 gap-1">
        <button
          type="button"
          class="also min-h-11! justify-center px-1! text-sm"
          data-test="add-housing"
          @click="add('housing')"
        >
          + housing</button
        ><button type="button" class="also min-h-11! justify-center px-1! text-sm" @click="add('bare')">
          + bare wire</button
        ><button type="button" class="also min-h-11! justify-center px-1! text-sm" @click="add('guide')">
          + guide
        </button>
      </div>
      <dl class="grid grid-cols-[auto_1fr] gap-x-4 border-t border-rule pt-2">
        <dt class="text-soft">Inner</dt>
        <dd class="figure text-right" data-test="inner-needed">
          {{ innerNeededMm(run) }} mm with its tail{{ innerToTake(run) === null ? '' : `, take ${innerToTake(run)}` }}
        </dd>
        <dt class="text-soft">Small parts</dt>
        <dd class="figure text-right">{{ smallParts(run).ferrules }} ferrules, 1 end cap</dd>
      </dl>
      <p v-if="innerToTake(run) === null" class="stopped">
        No inner sold is that long: order one made to length. Never a joiner in a brake’s inner.
      </p>
      <details v-if="mayKeep" class="border-t border-rule pt-1">
        <summary class="min-h-11 cursor-pointer py-2 font-semibold">Keep as a template</summary>
        <form class="grid gap-2" @submit.prevent="emit('template', templateName)">
          <TextField v-model="templateName" label="Name of the template" /><button
            class="also justify-center"
            :disabled="!templateName.trim()"
            data-test="keep-template"
          >
            Keep this bike’s runs
          </button>
          <p v-if="own.some(t => t.name === templateName.trim())" class="small">Kept as {{ templateName.trim() }}</p>
        </form>
      </details>
    </template>
  </div>
</template>
