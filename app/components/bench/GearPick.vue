<!-- In which gear: its sprocket by teeth. `between` leaves the two ends out. -->
<script setup lang="ts">
const click = defineModel<number>({ required: true })
defineProps<{ teeth: readonly number[]; between?: boolean }>()
</script>

<template>
  <label class="label"
    >In which gear<select v-model.number="click" class="field">
      <template v-for="(t, k) in teeth" :key="k"
        ><option v-if="!between || (k > 0 && k < teeth.length - 1)" :value="k">{{ t }}</option></template
      >
    </select></label
  >
</template>
