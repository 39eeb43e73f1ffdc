<!-- One figure over time, a dot a visit, the middle half as a band; a dot leads to its job. -->
<script setup lang="ts">
import type { RecordPoint } from '#core/http/records'
import {
  Chart as ChartJs,
  LinearScale,
  LineElement,
  PointElement,
  ScatterController,
  Tooltip,
  type ChartData,
  type ChartOptions,
} from 'chart.js'
import { Scatter } from 'vue-chartjs'
import { format } from 'date-fns'
import { TZDate } from '@date-fns/tz'
import type { Seen } from '#core/records/question'

ChartJs.register(LinearScale, PointElement, LineElement, ScatterController, Tooltip)
ChartJs.defaults.font.family = '"Atkinson Hyperlegible Mono", monospace'
ChartJs.defaults.font.size = 13
/** A colour of the mat as it is: a canvas does not read variables. The mat is the same on light and dim. */
const mat = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim()
const props = defineProps<{ points: readonly RecordPoint[]; seen: Seen; unit: string; zone: string }>()
const emit = defineEmits<{ open: [point: RecordPoint] }>()

const times = computed(() => props.points.map(p => Date.parse(p.at)))
const reach = computed(() => {
  const from = Math.min(...times.value)
  const to = Math.max(...times.value)
  const pad = Math.max(86_400_000 * 3, (to - from) * 0.04)
  return { from: from - pad, to: to + pad }
})
const level = (y: number) => [
  { x: reach.value.from, y },
  { x: reach.value.to, y },
]
const data = computed<ChartData<'scatter'>>(() => ({
  datasets: [
    {
      data: props.points.map((p, i) => ({ x: times.value[i], y: p.value })),
      pointRadius: 7,
      pointHoverRadius: 9,
      pointBackgroundColor: props.points.map(p => (p.latest ? mat('--mat-ink') : 'transparent')),
      pointBorderColor: mat('--mat-ink'),
      pointBorderWidth: 2,
    },
    {
      data: level(props.seen.quarter),
      showLine: true,
      pointRadius: 0,
      borderColor: mat('--mat-dim'),
      borderDash: [5, 5],
      borderWidth: 1.5,
    },
    {
      data: level(props.seen.threeQuarters),
      showLine: true,
      pointRadius: 0,
      borderColor: mat('--mat-dim'),
      borderDash: [5, 5],
      borderWidth: 1.5,
    },
    { data: level(props.seen.median), showLine: true, pointRadius: 0, borderColor: mat('--mat-clean'), borderWidth: 3 },
  ],
}))
const day = (x: number | string) => format(new TZDate(Number(x), props.zone), 'MMM yyyy')
const options = computed<ChartOptions<'scatter'>>(() => ({
  maintainAspectRatio: false,
  animation: false,
  onClick: (_, hit) => {
    const first = hit.find(h => h.datasetIndex === 0)
    if (first) emit('open', props.points[first.index])
  },
  onHover: (e, hit) => {
    ;(e.native?.target as HTMLElement).style.cursor = hit.some(h => h.datasetIndex === 0 && props.points[h.index].job)
      ? 'pointer'
      : 'default'
  },
  plugins: {
    legend: { display: false },
    tooltip: {
      filter: item => item.datasetIndex === 0,
      displayColors: false,
      callbacks: {
        label: item => {
          const p = props.points[item.dataIndex]
          return [
            `${p.value.toFixed(2)}${props.unit && ` ${props.unit}`}`,
            p.bike?.name ?? p.origin ?? '',
            p.job ? `job ${p.job.number}` : '',
          ].filter(Boolean)
        },
      },
    },
  },
  scales: {
    x: {
      min: reach.value.from,
      max: reach.value.to,
      ticks: { color: mat('--mat-soft'), callback: day, maxTicksLimit: 8, maxRotation: 0 },
      grid: { color: mat('--mat-grid') },
      border: { color: mat('--mat-dim') },
    },
    y: {
      ticks: { color: mat('--mat-soft'), maxTicksLimit: 7 },
      grid: { color: mat('--mat-grid') },
      border: { color: mat('--mat-dim') },
      title: { display: props.unit !== '', text: props.unit, color: mat('--mat-soft') },
      grace: '12%',
    },
  },
}))
</script>

<template>
  <div class="h-80">
    <Scatter
      :data="data"
      :options="options"
      :aria-label="`${points.length} figures over time, median ${seen.median.toFixed(2)} ${unit}; the list below has each`"
      role="img"
    />
  </div>
</template>
