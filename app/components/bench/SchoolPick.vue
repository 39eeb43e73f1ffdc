<!-- Every kind of school, each with a line on why; chosen for a shop, a person or this job. -->
<script setup lang="ts">
import { useTimeoutFn } from '@vueuse/core'
import { whyOf } from '#core/procedure/schoolWhys'
import { SCHOOL_KIND_WORDS, SCHOOL_KINDS, SCHOOLS, type SchoolChoice, type SchoolKind } from '#core/procedure/schools'

const props = defineProps<{ chosen: SchoolChoice; inForce: Required<SchoolChoice> }>()
const emit = defineEmits<{ choose: [choice: SchoolChoice] }>()
const why = (kind: SchoolKind) => whyOf(kind, props.inForce[kind])

/** What a list shows while arrow keys go through it: kept where they stop, not at every school they pass. */
const passing = shallowRef<{ kind: SchoolKind; id: string } | null>(null)
const RESTS_MS = 900
const rests = useTimeoutFn(take, RESTS_MS, { immediate: false })
const byKeys = ref(false)
function pick(kind: SchoolKind, id: string) {
  // of another list: that one stays where it was left
  if (passing.value?.kind !== kind) take()
  if (!byKeys.value) return choose(kind, id)
  passing.value = { kind, id }
  rests.start()
}
function take() {
  rests.stop()
  const at = passing.value
  passing.value = null
  if (at) choose(at.kind, at.id)
}
function choose(kind: SchoolKind, id: string) {
  if (id === (props.chosen[kind] ?? '')) return
  const rest = Object.fromEntries(Object.entries(props.chosen).filter(([k]) => k !== kind))
  emit('choose', id ? { ...rest, [kind]: id } : rest)
}
onBeforeUnmount(take)
</script>

<template>
  <div class="grid gap-3">
    <div v-for="kind in SCHOOL_KINDS" :key="kind">
      <label class="label"
        >{{ SCHOOL_KIND_WORDS[kind] }}
        <select
          class="field"
          :value="passing?.kind === kind ? passing.id : (chosen[kind] ?? '')"
          :data-test="`school-${kind}`"
          @keydown="byKeys = true"
          @pointerdown="byKeys = false"
          @blur="take"
          @change="pick(kind, ($event.target as HTMLSelectElement).value)"
        >
          <option value="">as usual: {{ SCHOOLS[kind].find(s => s.id === inForce[kind])?.name }}</option>
          <option v-for="s in SCHOOLS[kind]" :key="s.id" :value="s.id">{{ s.name }}</option>
        </select>
      </label>
      <p class="small">{{ why(kind) }}</p>
    </div>
    <p class="small">Gates hold in all: L by hand before the largest sprocket, both brakes before hand-back.</p>
  </div>
</template>
