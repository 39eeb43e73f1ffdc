<!-- A run's pieces: from a template, each measured and typed on its own. -->
<script setup lang="ts">
import { usualHousing, usualTailMm, type RunName } from '#core/cable/housing'
import { asRead, CONDITION_WORDS, CONDITIONS, Run, type Piece } from '#core/cable/run'
import { MU } from '#core/cable/friction'
import { smallParts } from '#core/cable/smallParts'
import { innerNeededMm, innerToTake, type FarEnd } from '#core/cable/wire'
import { RUN_TEMPLATES, templateRun } from '#core/cable/templates'
import { NewTemplate, type TemplateView } from '#core/http/cables'

const props = defineProps<{
  name: RunName
  run: Run | null
  own: readonly TemplateView[]
  last: Run | null
  /** The brake that this run works, where it was said. */
  at: FarEnd
  chosen: string | null
  mayKeep: boolean
}>()
const emit = defineEmits<{ keep: [run: Run]; choose: [piece: string | null]; template: [name: string] }>()
const { standards } = storeToRefs(useLedger())
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
const STATES = CONDITIONS.map(value => ({ value, words: CONDITION_WORDS[value], aside: `μ ${MU[value]}` }))
const trouble = ref('')
function put(run: unknown) {
  const read = Run.safeParse(run)
  if (!read.success) return void (trouble.value = read.error.issues[0].message)
  trouble.value = ''
  emit('keep', read.data)
}
const begin = (id: string) => {
  const t = offered.value.find(o => o.id === id)
  if (t) put(t.of())
}
const piece = computed(() => props.run?.pieces.find(p => p.name === props.chosen) ?? null)
function kept(run: Run, name: string) {
  emit('keep', run)
  emit('choose', name)
}
function add(kind: Piece['kind']) {
  const base = props.run ?? { run: props.name, condition: 'used', tailMm: usualTailMm(standards.value), pieces: [] }
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
const need = computed(() => (props.run ? innerNeededMm(props.run, props.at) : 0))
const take = computed(() => (props.run ? innerToTake(props.run, props.at) : null))
const small = computed(() => (props.run ? smallParts(props.run, props.at) : null))
const template = useEntryForm({
  initial: { name: '' },
  schema: NewTemplate.pick({ name: true }),
  done: ({ name }) => emit('template', name),
})
const templateName = template.form.useStore(s => s.values.name)
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
          @click="begin(o.id)"
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
      <ChoiceRow
        :model-value="run.condition"
        label="Condition"
        :choices="STATES"
        :columns="2"
        :centred="false"
        test="condition"
        @update:model-value="c => run && put({ ...run, condition: c })"
      />
      <!-- by what it says, not by which object says it: an entry that comes back from the server must not wipe what is
           typed -->
      <LazyPieceForm v-if="piece" :key="JSON.stringify(piece)" :run="run" :piece="piece" @keep="kept" @drop="drop" />
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
          {{ need }} mm with its tail{{ take === null ? '' : `, take ${take}` }}
        </dd>
        <dt class="text-soft">Small parts</dt>
        <dd v-if="small" class="figure text-right" data-test="small-parts">
          {{ small.ferrules }} ferrules{{ small.caps ? ', 1 end cap' : '' }}{{ small.noodles ? ', 1 noodle' : '' }}
        </dd>
      </dl>
      <LazyInnerEnds :key="at ?? ''" :run="run" :at="at" @keep="emit('keep', $event)" />
      <p v-if="take === null" class="stopped">
        No inner sold is that long: order one made to length. Never a joiner in a brake’s inner.
      </p>
      <details v-if="mayKeep" class="border-t border-rule pt-1">
        <summary class="min-h-11 cursor-pointer py-2 font-semibold">Keep as a template</summary>
        <form class="grid gap-2" novalidate @submit.prevent="template.form.handleSubmit()">
          <FormLine :of="template" name="name" label="Name of the template" /><button
            class="also justify-center"
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
