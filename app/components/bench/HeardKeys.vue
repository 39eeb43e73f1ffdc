<!-- The row of what was heard: one touch each, a key each. -->
<script setup lang="ts">
import type { Heard } from '#core/response/heard'
import { HEARD_KEYS } from './heard'

const props = defineProps<{
  passBarred: boolean
  exceptions: number
  atEnd: boolean
  /** The shift that is asked is two clicks at a stroke: its outcomes have words of their own. */
  twoClicks: boolean
}>()
const TWO: Partial<Record<Heard, { word: string; more: string }>> = {
  none: { word: 'Hung', more: 'between' },
  jumps: { word: 'Climbed', more: 'on past' },
}
const said = (k: (typeof HEARD_KEYS)[number]) => (props.twoClicks ? TWO[k.heard] : null) ?? k
const emit = defineEmits<{ heard: [heard: Heard]; pass: [] }>()
</script>

<template>
  <div class="keys" role="group" aria-label="What was heard">
    <button
      type="button"
      class="heard border-clean text-clean"
      :disabled="passBarred"
      data-test="pass"
      @click="emit('pass')"
    >
      <span class="word">Whole pass</span>
      <span class="more"
        >{{ passBarred ? 'see L first' : exceptions ? `all but ${exceptions}` : 'clean in, back' }}
        <kbd class="key">0</kbd></span
      >
    </button>
    <button
      v-for="k in HEARD_KEYS"
      :key="k.key"
      type="button"
      class="heard"
      :data-test="`heard-${k.heard}`"
      :disabled="k.heard === 'off' && !atEnd"
      :class="
        { clean: 'border-clean text-clean', plain: 'border-rule text-ink', stop: 'border-stop text-stop' }[k.tone]
      "
      @click="emit('heard', k.heard)"
    >
      <span class="word">{{ said(k).word }}</span
      ><span class="more">{{ said(k).more }} <kbd class="key">{{ k.key }}</kbd></span>
    </button>
  </div>
</template>

<style scoped>
.keys {
  display: grid;
  grid-template-columns: 1.25fr repeat(8, 1fr);
  gap: 7px;
}
.heard {
  display: flex;
  flex-direction: column;
  justify-content: space-between;
  min-height: 60px;
  padding: 6px 8px;
  border-width: 2px;
  border-radius: 6px;
  background: var(--panel);
  text-align: left;
}
.heard:disabled {
  opacity: 0.45;
  cursor: default;
}
.word {
  font-weight: 700;
  font-size: 1.0625rem;
  line-height: 1.15;
}
.more {
  display: flex;
  justify-content: space-between;
  align-items: end;
  gap: 4px;
  font-size: 0.8125rem;
  color: var(--soft);
  line-height: 1.1;
}
@media (max-width: 1100px) {
  .more .key {
    display: none;
  }
}
@media (max-width: 800px) {
  .keys {
    /* five abreast, fewer where letters are set larger: no word is broken */
    grid-template-columns: repeat(auto-fit, minmax(max(calc(4.9rem - 21px), 18%), 1fr));
    gap: 5px;
  }
  .heard {
    min-height: 56px;
    padding: 4px;
  }
  .keys > :first-child {
    grid-column: span 2;
  }
  .word {
    font-size: 0.875rem;
  }
}
</style>
