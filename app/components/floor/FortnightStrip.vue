<!-- Recalls of the next two weeks, a day a cell. -->
<script setup lang="ts">
import { addDays, format, isWeekend } from 'date-fns'
import type { FloorView } from '#core/http/floor'

const props = defineProps<{ today: string; recalls: FloorView['recalls'] }>()
const days = computed(() =>
  Array.from({ length: 14 }, (_, i) => {
    const at = addDays(new Date(`${props.today}T12:00:00`), i)
    const date = format(at, 'yyyy-MM-dd')
    // what is overdue belongs to today
    return {
      date,
      at,
      closed: isWeekend(at),
      due: props.recalls.filter(r => !r.done && (r.dueOn === date || (i === 0 && r.dueOn < date))),
    }
  }),
)
</script>

<template>
  <ol class="grid grid-cols-7 border-t border-l border-rule bg-panel">
    <li
      v-for="(d, i) in days"
      :key="d.date"
      class="min-h-16 border-r border-b border-rule p-1.5 text-sm"
      :class="{ 'bg-ground': d.closed }"
    >
      <span :class="{ 'font-bold': i === 0 }">{{ format(d.at, i < 7 ? 'EEEEEE d' : 'd') }}</span>
      <span class="mt-0.5 flex flex-wrap gap-1">
        <NuxtLink
          v-for="r in d.due"
          :key="r.number"
          :to="`/jobs/${r.number}/sheet`"
          class="figure inline-flex min-h-7 items-center rounded px-2 font-semibold"
          :class="r.dueOn <= today ? 'border-2 border-ink bg-panel text-ink' : 'bg-ink text-panel'"
          :title="r.bike"
          >{{ r.tag }}<span class="sr-only">, {{ r.bike }}, recall due</span></NuxtLink
        >
      </span>
    </li>
  </ol>
</template>
