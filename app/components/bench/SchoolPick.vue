<!-- Every kind of school, each with a line on why; chosen for a shop, a person or this job. -->
<script setup lang="ts">
import { whyOf } from '#core/procedure/schoolWhys'
import { SCHOOL_KIND_WORDS, SCHOOL_KINDS, SCHOOLS, type SchoolChoice, type SchoolKind } from '#core/procedure/schools'

const props = defineProps<{ chosen: SchoolChoice; inForce: Required<SchoolChoice> }>()
const emit = defineEmits<{ choose: [choice: SchoolChoice] }>()
const why = (kind: SchoolKind) => whyOf(kind, props.inForce[kind])
function pick(kind: SchoolKind, id: string) {
  const rest = Object.fromEntries(Object.entries(props.chosen).filter(([k]) => k !== kind))
  emit('choose', id ? { ...rest, [kind]: id } : rest)
}
</script>

<template>
  <div class="grid gap-3">
    <div v-for="kind in SCHOOL_KINDS" :key="kind">
      <label class="label"
        >{{ SCHOOL_KIND_WORDS[kind] }}
        <select
          class="field"
          :value="chosen[kind] ?? ''"
          :data-test="`school-${kind}`"
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
