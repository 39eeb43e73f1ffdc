<!-- One piece of a run, measured: its length and where that was read, its bends, its housing. -->
<script setup lang="ts">
import { HOUSINGS, housingRefused, type Housing } from '#core/cable/housing'
import { placesOf } from '#core/cable/places'
import { housingFigure } from '#core/records/runs'
import { LENGTH_READ, Run, type LengthRead, type Piece } from '#core/cable/run'
import { typedNumber, typedNumbers } from '#core/quantity/typed'

const props = defineProps<{ run: Run; piece: Piece }>()
const emit = defineEmits<{ keep: [run: Run, piece: string]; drop: [] }>()
const { piece } = props
const bends = piece.kind === 'housing' ? piece.bends : piece.kind === 'guide' ? [piece.bend] : []
const read = piece.kind === 'guide' ? undefined : piece.read
/** Radius of a bend nobody measured, mm. `practice` */
const USUAL_RADIUS_MM = 70
type Typed = {
  name: string
  length: string
  bends: string
  radius: string
  of: Housing
  by: LengthRead
  why: string
  bare: ('from' | 'to')[]
}
const initial: Typed = {
  name: piece.name,
  length: piece.kind === 'guide' ? '' : String(piece.lengthMm),
  bends: bends.map(b => b.deg).join(' '),
  radius: String(bends[0]?.radiusMm ?? USUAL_RADIUS_MM),
  of: piece.kind === 'housing' ? piece.of : HOUSINGS[0],
  by: read?.by ?? 'guess',
  why: read?.why ?? '',
  bare: piece.kind === 'housing' ? [...(piece.bare ?? [])] : [],
}
const ENDS = [
  ['from', 'lever’s end'],
  ['to', 'far end'],
] as const
const LINES: Record<string, string> = {
  name: 'name',
  lengthMm: 'length',
  bends: 'bends',
  bend: 'bends',
  of: 'of',
  read: 'why',
}
const form = useEntryForm({
  initial,
  schema: Run,
  read: typed => ({ ...props.run, pieces: props.run.pieces.map(p => (p.name === piece.name ? changed(typed) : p)) }),
  // pieces.2.lengthMm: of another piece, nothing here is to blame
  line: field => {
    const [of, i, what, at, key] = field.split('.')
    if (of !== 'pieces' || props.run.pieces[Number(i)]?.name !== piece.name) return 'name'
    return key === 'radiusMm' || at === 'radiusMm' ? 'radius' : (LINES[what!] ?? 'name')
  },
  done: (run, typed) => emit('keep', run, typed.name.trim()),
})
// a guide has no length
useFigureTyped(text => piece.kind !== 'guide' && form.form.setFieldValue('length', text))
function changed(typed: Typed) {
  const bent = typedNumbers(typed.bends).map(deg => ({ deg, radiusMm: typedNumber(typed.radius) }))
  const readFrom = { by: typed.by, why: typed.why }
  const { name } = typed
  if (piece.kind === 'guide') return { ...piece, name, bend: bent[0] ?? { deg: 0, radiusMm: USUAL_RADIUS_MM } }
  const measured = { ...piece, name, lengthMm: typedNumber(typed.length), read: readFrom }
  return piece.kind === 'housing'
    ? { ...measured, of: typed.of, bends: bent, bare: typed.bare.length ? typed.bare : undefined }
    : measured
}
const typed = form.form.useStore(s => s.values)
/** A length typed anew is no longer the one it came with, and claims nothing until somebody says where it was read. */
watch(
  () => typed.value.length,
  () => {
    if (typed.value.by === 'old' || typed.value.by === 'bike' || typed.value.by === 'cut') return
    form.form.setFieldValue('by', 'guess')
    form.form.setFieldValue('why', '')
  },
)
/** The recorded figure of this piece, by its place on the run. */
const figure = computed(() => {
  const place = placesOf(props.run).find(p => p.piece === piece.name)?.place
  return place ? housingFigure(props.run.run, place) : null
})
/** Taken from such bikes it says so; typed over, it is a guess again. */
async function takeUsual(mm: number) {
  form.form.setFieldValue('length', String(mm))
  await nextTick()
  form.form.setFieldValue('by', 'shop')
}
const refused = computed(() => (piece.kind === 'housing' ? housingRefused(props.run.run, typed.value.of) : null))
</script>

<template>
  <form class="grid gap-2 border-t border-rule pt-2" novalidate @submit.prevent="form.form.handleSubmit()">
    <FormLine :of="form" name="name" label="Piece" />
    <div class="grid grid-cols-2 gap-2">
      <FormLine v-if="piece.kind !== 'guide'" :of="form" name="length" label="Length, mm" mono inputmode="numeric" />
      <FormLine
        v-if="piece.kind !== 'bare'"
        :of="form"
        name="bends"
        :label="piece.kind === 'guide' ? 'Bend, °' : 'Bends, °'"
        mono
        inputmode="decimal"
      />
      <FormLine v-if="piece.kind !== 'bare'" :of="form" name="radius" label="Radius, mm" mono inputmode="numeric" />
      <label v-if="piece.kind === 'housing'" class="label"
        >Housing<select
          class="field"
          :value="typed.of"
          data-test="housing-kind"
          @change="form.form.setFieldValue('of', ($event.target as HTMLSelectElement).value as Housing)"
        >
          <option v-for="h in HOUSINGS" :key="h" :value="h">{{ h }}</option>
        </select></label
      >
    </div>
    <LikeHere v-if="figure" :run="run.run" :figure="figure" @take="takeUsual" />
    <div v-if="piece.kind !== 'guide'" class="grid gap-2">
      <label class="label"
        >Length read from<select
          class="field"
          :value="typed.by"
          data-test="read-by"
          @change="form.form.setFieldValue('by', ($event.target as HTMLSelectElement).value as LengthRead)"
        >
          <option v-for="(r, by) in LENGTH_READ" :key="by" :value="by">{{ r.words }}, ±{{ r.errorMm }}</option>
        </select></label
      >
      <FormLine :of="form" name="why" label="Why that" />
    </div>
    <div
      v-if="piece.kind === 'housing'"
      class="flex flex-wrap items-center gap-1"
      role="group"
      aria-label="Ends without a ferrule"
    >
      <span class="small">Bare, no ferrule:</span>
      <button
        v-for="[end, words] in ENDS"
        :key="end"
        type="button"
        class="also min-h-11!"
        :class="{ chosen: typed.bare.includes(end) }"
        :aria-pressed="typed.bare.includes(end)"
        :data-test="`bare-${end}`"
        @click="
          form.form.setFieldValue(
            'bare',
            typed.bare.includes(end) ? typed.bare.filter(e => e !== end) : [...typed.bare, end],
          )
        "
      >
        {{ words }}
      </button>
    </div>
    <p v-if="refused" class="stopped" role="alert" data-test="refused-housing">{{ refused }}</p>
    <p v-else-if="form.trouble.value" class="wrong" role="alert" data-test="piece-trouble">{{ form.trouble.value }}</p>
    <div class="flex flex-wrap gap-2">
      <button class="act flex-1 justify-center" :disabled="refused !== null" data-test="save-piece">Keep it</button
      ><button type="button" class="quiet text-stop" @click="emit('drop')">Take it out</button>
    </div>
  </form>
</template>
