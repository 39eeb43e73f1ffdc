<!-- Bikes by the door; collected is asked once more. -->
<script setup lang="ts">
import { format } from 'date-fns'
import type { FloorJob } from '#core/http/floor'

defineProps<{ jobs: readonly FloorJob[] }>()
const emit = defineEmits<{ collected: [job: FloorJob] }>()
const sure = ref<number | null>(null)
function collected(j: FloorJob) {
  if (sure.value !== j.number) return void (sure.value = j.number)
  sure.value = null
  emit('collected', j)
}
</script>

<template>
  <section aria-labelledby="door-title">
    <h2 id="door-title" class="mb-2 font-bold">By the door<span v-if="jobs.length">, {{ jobs.length }}</span></h2>
    <ul class="border-t border-rule">
      <li
        v-for="j in jobs"
        :key="j.number"
        class="grid grid-cols-[3rem_1fr_auto] items-center gap-x-3 border-b border-rule py-1 md:grid-cols-[3rem_1fr_1.3fr_auto_auto]"
      >
        <span class="figure text-lg font-semibold">{{ j.tag }}</span>
        <NuxtLink :to="`/jobs/${j.number}/sheet`" class="block min-h-11 content-center leading-tight"
          ><b>{{ j.bike }}</b><span class="small block">{{ j.customer }}</span></NuxtLink
        >
        <span class="text-soft col-start-2 row-start-2 md:col-start-auto md:row-start-auto">{{ j.summary }}</span>
        <span class="text-soft hidden md:block"
          >{{ j.unridable ? '' : j.recallOn ? `recall ${format(new Date(`${j.recallOn}T12:00:00`), 'd MMMM')}` : ''
          }}<b v-if="j.unridable" class="text-stop">not proven</b
          ><b v-if="j.declined" class="block text-stop" data-test="door-declined">{{ j.declined }}</b></span
        >
        <button
          type="button"
          class="text-sm"
          :class="sure === j.number ? 'also min-h-11! px-3!' : 'quiet'"
          :data-test="`collected-${j.tag}`"
          @blur="sure = null"
          @click="collected(j)"
        >
          {{ sure === j.number ? 'Yes, it went' : 'Collected' }}
        </button>
      </li>
      <li v-if="!jobs.length" class="py-3 text-soft">Nothing is ready to go yet.</li>
    </ul>
  </section>
</template>
