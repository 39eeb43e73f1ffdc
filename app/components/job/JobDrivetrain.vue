<!-- The drivetrain of a job, chosen by looking at the stand, or put right by choosing it again. -->
<script setup lang="ts">
import { DoorView } from '#core/http/door'
import { UNSEEN, type Seen } from '#core/job/seen'
import { fromSixteenths } from '#core/quantity/turns'
import type { RearParts } from '#core/rear/parts'
import type { JobState } from '#core/ledger/reduce'
import { typedFromParts } from '#core/rear/typedParts'

const props = defineProps<{ state: JobState; /** Nothing to go back to. */ only?: boolean }>()
const emit = defineEmits<{ take: [parts: RearParts]; close: [] }>()
const { catalogue, parts } = await useCatalogue()
const { data: door } = await useRead(DoorView, '/api/door')
const used = computed(() => door.value?.used ?? {})
const { rear, job } = props.state
const many = rear.parts?.cassette.teeth.length ?? null
const seen = ref<Seen>({ ...UNSEEN, ...job.seen, ...(many ? { sprockets: many } : {}) })
const none = ref(null)
const of = useDrivetrain({
  seen,
  used,
  catalogue,
  start: rear.parts ? typedFromParts(rear.parts, fromSixteenths(rear.barrelSixteenths)) : null,
})
const tried = ref(false)
function take() {
  tried.value = true
  if (!of.open.value && of.read.value.is === 'parts') emit('take', of.read.value.parts)
  else if (!of.open.value) of.way.value = 'figures'
}
</script>

<template>
  <div class="grid gap-3" :class="{ 'border-l-[6px] border-ink pl-3': !only }" data-test="choose-again">
    <LookPick v-model="seen" v-model:frame-kind="none" gears-only />
    <GearsPick
      :of="of"
      :seen="seen"
      :used="used"
      :catalogue="catalogue"
      :parts="parts"
      :show-errors="tried"
      counted-words="counted from fully in"
      now
    />
    <p v-if="tried && of.open.value" class="wrong" role="alert">
      Touch the one that it is, measure it, or type its figures.
    </p>
    <div class="flex gap-2">
      <button type="button" class="act grow" data-test="take-parts" @click="take">These are its parts</button>
      <button v-if="!only" type="button" class="also" @click="emit('close')">Leave it</button>
    </div>
  </div>
</template>
