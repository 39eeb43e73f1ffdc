<!-- Which keys do what at the rear bench. -->
<script setup lang="ts">
defineEmits<{ close: [] }>()
const KEYS = [
  ['1–8', 'what was heard'],
  ['0', 'a whole pass, clean but for the gears marked'],
  ['←  →', 'aim a gear towards the spokes, the frame'],
  ['X', 'mark the aimed gear as not clean in the pass'],
  ['[  ]', 'wind the chosen screw an eighth in, out; Enter logs it'],
  ['B H L', 'choose barrel, H or L for the brackets'],
  ['R', 'where winding began to rub'],
  ['N', 'no rub found'],
  ['Enter', 'done as advised'],
  ['E', 'I did something else'],
  ['Z', 'take back'],
  ['?', 'this list'],
] as const
</script>

<template>
  <section aria-label="Keys">
    <div class="flex items-center justify-between">
      <h2 class="text-lg font-bold">Keys</h2>
      <button type="button" class="quiet" @click="$emit('close')">Close</button>
    </div>
    <dl class="mt-2 grid grid-cols-[5rem_1fr] gap-y-1.5">
      <template v-for="[k, w] in KEYS" :key="k"
        ><dt class="figure font-semibold">{{ k }}</dt>
        <dd>{{ w }}</dd></template
      >
    </dl>
  </section>
</template>
