<!-- What a customer may have said, one touch each: what their own sentence proposes is dashed, what was said is dark.
  -->
<script setup lang="ts">
export type SayKey = { id: string; words: string; said: boolean; proposed: boolean; looked: boolean }
defineProps<{ label: string; test: string; keys: readonly SayKey[]; inARow?: boolean }>()
const emit = defineEmits<{ touch: [id: string] }>()
</script>

<template>
  <div
    :class="inARow ? 'flex flex-wrap gap-1.5' : 'grid grid-cols-2 gap-1.5 xl:grid-cols-3'"
    role="group"
    :aria-label="label"
  >
    <button
      v-for="k in keys"
      :key="k.id"
      type="button"
      class="say"
      :class="{ proposed: k.proposed, looked: k.looked }"
      :aria-pressed="k.said"
      :data-test="`${test}-${k.id}`"
      @click="emit('touch', k.id)"
    >
      {{ k.words }}<span v-if="k.proposed && !k.said" class="small">as written?</span>
    </button>
  </div>
</template>

<style scoped>
.say {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  min-height: 52px;
  padding: 6px 12px;
  border: 2px solid var(--rule);
  border-radius: 6px;
  background: var(--panel);
  text-align: left;
  font-weight: 600;
  align-items: center;
}
.say.proposed {
  border-color: var(--ink);
  border-style: dashed;
}
.say[aria-pressed='true'] {
  border-color: var(--ink);
  border-style: solid;
  background: var(--ink);
  color: var(--panel);
}
.say.looked[aria-pressed='true'] {
  outline: 3px solid var(--ink);
  outline-offset: 2px;
}
</style>
