<!-- The path of stages on a page that has no advice of its own: once something was heard it is asked beside it. -->
<script setup lang="ts">
import type { JobState } from '#core/ledger/reduce'
import type { Stage } from '#core/procedure/stages'
import { indexHeard } from '#core/rear/toIndex'

defineProps<{ state: JobState; number: number; here: Stage | null }>()
const right = ref<number | null>(null)
</script>

<template>
  <LazyIndexRight v-if="indexHeard(state.rear)" v-model="right" :state="state" />
  <StagePath :state="state" :number="number" :right="right" :here="here" />
</template>
