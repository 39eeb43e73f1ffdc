<!-- A step of the two-cable procedure drawn: which head seats where, where an inner is cut, which grub comes first. No
     store, no physics. -->
<script setup lang="ts">
const props = defineProps<{ step: 'heads' | 'cut' | 'grubs'; which: 'lower' | 'upper' | 'rear' | 'front' | null }>()
const W = 690
const H = 200
const MM = 14 // px a mm: five millimetres are seen
const END = 250 // where the coupling ends
const words = {
  heads: 'the grip from its front: where each head seats',
  cut: 'coupling and inner side by side, to scale',
  grubs: 'the coupling: wire flush with its hole, one grub flush, then the other',
}
const label = {
  heads: 'lower inner’s head left, upper inner’s head right',
  cut: 'cut 5 mm from the coupling’s end',
  grubs: 'two grub screws, 1.5 N·m each',
}
const active = (at: 'lower' | 'upper') => props.which === at
</script>

<template>
  <svg :viewBox="`0 0 ${W} ${H}`" class="block h-auto w-full" role="img" :aria-label="label[step]">
    <text x="14" y="22" font-size="13" fill="var(--mat-soft)">{{ words[step] }}</text>
    <template v-if="step === 'heads'">
      <circle cx="250" cy="112" r="74" fill="var(--mat-mid)" />
      <circle cx="250" cy="112" r="34" fill="var(--mat)" />
      <g
        v-for="h in [
          ['lower', 200, 150],
          ['upper', 300, 74],
        ] as const"
        :key="h[0]"
      >
        <circle :cx="h[1]" :cy="h[2]" r="15" :fill="active(h[0]) ? 'var(--mat-clean)' : 'var(--mat-dim)'" />
        <path
          :d="h[0] === 'lower' ? `M${h[1]} ${h[2]}q-70 30 -150 26` : `M${h[1]} ${h[2]}q90 -30 180 -24`"
          fill="none"
          :stroke="active(h[0]) ? 'var(--mat-clean)' : 'var(--mat-dim)'"
          stroke-width="4"
        />
      </g>
      <text x="60" y="156" font-size="15" fill="var(--mat-ink)">lower: left</text>
      <text x="490" y="44" font-size="15" fill="var(--mat-ink)">upper: right</text>
    </template>
    <template v-else-if="step === 'cut'">
      <rect x="70" y="62" :width="END - 70" height="30" rx="4" fill="var(--mat-dim)" />
      <text x="84" y="83" font-size="15" fill="var(--night)" font-weight="600">coupling</text>
      <path :d="`M70 128H${END - 5 * MM}`" stroke="var(--bone)" stroke-width="6" />
      <path
        :d="`M${END - 5 * MM} 128h190`"
        stroke="var(--bone)"
        stroke-width="6"
        stroke-dasharray="4 7"
        opacity="0.5"
      />
      <path :d="`M${END} 50v96`" stroke="var(--mat-soft)" stroke-dasharray="4 4" />
      <path :d="`M${END - 5 * MM} 104v48`" stroke="var(--mat-stop)" stroke-width="4" />
      <text :x="END - 5 * MM" y="174" font-size="15" fill="var(--mat-stop)" text-anchor="middle">cut here</text>
      <text :x="END + 14" y="112" font-size="15" fill="var(--mat-ink)" class="figure">5 mm</text>
      <text x="70" y="150" font-size="13" fill="var(--mat-soft)">
        {{ which === 'front' ? 'front inner, gear 1' : 'rear inner, gear 14' }}
      </text>
    </template>
    <template v-else>
      <rect x="150" y="80" width="260" height="60" rx="6" fill="var(--mat-dim)" />
      <path d="M40 110H390" stroke="var(--bone)" stroke-width="8" />
      <path d="M390 96v28" stroke="var(--mat-clean)" stroke-width="4" />
      <g v-for="(x, i) in [220, 330]" :key="x">
        <rect
          :x="x - 11"
          y="66"
          width="22"
          height="36"
          rx="3"
          fill="var(--mat-mid)"
          stroke="var(--mat-ink)"
          stroke-width="2"
        />
        <text :x="x" y="58" font-size="15" fill="var(--mat-ink)" text-anchor="middle" class="figure">{{ i + 1 }}</text>
      </g>
      <text x="430" y="116" font-size="15" fill="var(--mat-clean)">wire flush with its hole</text>
    </template>
    <text :x="W - 18" y="184" font-size="13" fill="var(--mat-clean)" text-anchor="end">{{ label[step] }}</text>
  </svg>
</template>
