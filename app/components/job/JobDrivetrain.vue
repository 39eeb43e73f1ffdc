<!-- The drivetrain of a job, put right by choosing it again; also where none was named by mistake. -->
<script setup lang="ts">
import { fromSixteenths } from '#core/quantity/turns'
import type { RearParts } from '#core/rear/parts'
import type { RearState } from '#core/rear/state'
import { readTypedParts, standardById, typedFromParts, typedFromStandard } from '#core/rear/typedParts'

const props = defineProps<{ rear: RearState }>()
const emit = defineEmits<{ take: [parts: RearParts]; close: [] }>()
const { catalogue } = await useCatalogue()
const typed = ref(
  props.rear.parts
    ? typedFromParts(props.rear.parts, fromSixteenths(props.rear.barrelSixteenths))
    : typedFromStandard(standardById('r17-9')!),
)
const read = computed(() => readTypedParts(typed.value))
const tried = ref(false)
function take() {
  tried.value = true
  if (read.value.is === 'parts') emit('take', read.value.parts)
}
</script>

<template>
  <div class="grid gap-3 border-l-[6px] border-ink pl-3" data-test="choose-again">
    <DrivetrainFields
      v-model="typed"
      :read="read"
      :show-errors="tried"
      :catalogue="catalogue"
      counted-words="counted from fully in"
    />
    <div class="flex gap-2">
      <button type="button" class="act grow" data-test="take-parts" @click="take">These are its parts</button>
      <button type="button" class="also" @click="emit('close')">Leave it</button>
    </div>
  </div>
</template>
