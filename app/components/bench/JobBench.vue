<!-- The frame of a bench beside the rear one: what there is at the left, its picture, the panel with its tabs; one undo, one place for troubles. -->
<script setup lang="ts" generic="P extends string">
import { Undo2 } from '@lucide/vue'

defineProps<{
  number: number
  leftLabel: string
  lookLabel: string
  panels: readonly (readonly [P, string])[]
  said: string
  /** On a phone the left comes first: it chooses what the rest is about. */ runsFirst?: boolean
  /** On a phone the panel comes before the picture. */ actFirst?: boolean
}>()
const panel = defineModel<P>('panel', { required: true })
const emit = defineEmits<{ undo: [] }>()
const ledger = useLedger()
const { loaded } = storeToRefs(ledger)
</script>

<template>
  <div class="bench-frame" :class="{ 'runs-first': runsFirst }">
    <BenchTop class="no-print" />
    <div v-if="loaded !== 'ready'" class="p-6">
      <p v-if="loaded === 'loading'">Reading the log</p>
      <p v-else class="stopped" role="alert">
        {{ loaded === 'missing' ? `There is no job ${number} here.` : OFFLINE_WORDS }}
      </p>
    </div>
    <template v-else>
      <aside class="bench-left no-print" :aria-label="leftLabel">
        <slot name="left" />
        <NuxtLink class="quiet w-full" :to="`/jobs/${number}`">The job</NuxtLink>
        <button
          type="button"
          class="quiet mt-auto w-full justify-between border-t border-rule px-0!"
          :disabled="!ledger.canUndo"
          data-test="undo"
          @click="emit('undo')"
        >
          <span class="flex items-center gap-2"><Undo2 :size="18" aria-hidden="true" />Take back</span>
          <kbd class="key">Z</kbd>
        </button>
      </aside>
      <main class="bench-middle">
        <BenchTroubles class="no-print" />
        <slot name="above" />
        <div class="bench-stage no-print" :class="{ 'act-first': actFirst }">
          <section class="look" :aria-label="lookLabel"><slot name="look" /></section>
          <aside class="panel" :aria-label="panels.find(p => p[0] === panel)![1]">
            <div class="grid gap-1" :style="{ gridTemplateColumns: `repeat(${panels.length}, minmax(0, 1fr))` }">
              <button
                v-for="[key, words] in panels"
                :key="key"
                type="button"
                class="also min-h-11! justify-center px-1! text-sm"
                :class="{ 'bg-act! text-act-ink!': panel === key }"
                :aria-pressed="panel === key"
                :data-test="`panel-${key}`"
                @click="panel = key"
              >
                {{ words }}
              </button>
            </div>
            <slot />
          </aside>
        </div>
        <slot name="below" />
        <p class="sr-only" aria-live="polite">{{ said }}</p>
      </main>
    </template>
  </div>
</template>
