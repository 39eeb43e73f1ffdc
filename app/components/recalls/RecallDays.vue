<!-- Four weeks, a day a cell: how many bikes are due and how many places are free. -->
<script setup lang="ts">
import { format } from 'date-fns'

const props = defineProps<{ days: readonly { day: string; due: number }[]; places: number }>()
const cells = computed(() =>
  props.days.map((d, i) => {
    const at = new Date(`${d.day}T12:00:00`)
    return {
      ...d,
      name: format(at, i < 7 ? 'EEEEEE d' : 'd'),
      free: props.places - d.due,
      long: format(at, 'EEEE d MMMM'),
    }
  }),
)
</script>

<template>
  <section aria-labelledby="days-title">
    <h2 id="days-title" class="font-bold">Free places, {{ places }} a day</h2>
    <ol class="mt-1 grid grid-cols-7 border-t border-l border-rule bg-panel text-sm" data-test="recall-days">
      <li
        v-for="(d, i) in cells"
        :key="d.day"
        class="min-h-13 border-r border-b border-rule p-1"
        :class="{ 'bg-ground': d.free <= 0 }"
      >
        <span class="block text-xs" :class="{ 'font-bold': i === 0 }">{{ d.name }}</span>
        <span class="figure block font-semibold" :class="d.free <= 0 ? 'text-stop' : d.due ? '' : 'text-soft'"
          >{{ Math.max(0, d.free) }}<span class="sr-only"> free on {{ d.long }}</span></span
        >
      </li>
    </ol>
  </section>
</template>
