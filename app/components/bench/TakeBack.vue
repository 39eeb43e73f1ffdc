<!-- The last touch taken back; it says which. -->
<script setup lang="ts">
import Undo2 from '@lucide/vue/dist/esm/icons/undo-2.mjs'
import type { Bench } from '~/composables/bench'

defineProps<{ bench: Bench }>()
</script>

<template>
  <button
    type="button"
    class="quiet sticky bottom-0 w-full justify-between border-t border-rule bg-ground! px-0! text-left"
    :disabled="bench.undoes.value === null"
    data-test="undo"
    @click="bench.undo"
  >
    <span class="flex min-w-0 items-center gap-2"
      ><Undo2 :size="18" class="shrink-0" aria-hidden="true" /><span class="min-w-0"
        ><span class="block">Take back</span
        ><span v-if="bench.tookBack.value" class="small line-clamp-2 font-semibold text-clean!" data-test="took-back"
          >Taken back: {{ bench.tookBack.value }}</span
        ><span v-else-if="bench.undoes.value" class="small line-clamp-2 font-normal" data-test="undoes">{{
          bench.undoes.value
        }}</span></span
      ></span
    >
    <kbd class="key">Z</kbd>
  </button>
</template>
