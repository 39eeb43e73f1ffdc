<!-- A front derailleur as an eye sees it from behind: rings, chain and the two plates of its cage, true across; and its
     turn from above. No store, no physics. -->
<script setup lang="ts">
const props = defineProps<{
  rings: readonly { teeth: number; chainMm: number }[]
  chainWidthMm: number
  cageWidthMm: number
  cageMm: number
  chainMm: number
  /** 0 on its ring, 1 hanging beside it. */
  fallen: number
  heightMm: number
  angleDeg: number
  label: string
}>()
const W = 690
const H = 300
const PX = 13 // px a mm across
const FOOT = 270
const CENTRE = 235
const middle = computed(() => (props.rings[0]!.chainMm + props.rings.at(-1)!.chainMm) / 2)
const x = (mm: number) => CENTRE + (mm - middle.value) * PX
const most = computed(() => Math.max(...props.rings.map(r => r.teeth)))
/** Only the upper part of a ring is seen; a tooth fewer stands a hand lower than it does. */
const top = (teeth: number) => 130 + (most.value - teeth) * 4
const onTop = computed(() => {
  const near = [...props.rings].sort(
    (a, b) => Math.abs(a.chainMm - props.chainMm) - Math.abs(b.chainMm - props.chainMm),
  )
  return top(near[0]!.teeth) + props.fallen * 90
})
/** Height over the big ring, drawn four times. */
const plateFoot = computed(() => top(most.value) - props.heightMm * 4)
const plate = (side: -1 | 1) => x(props.cageMm + (side * props.cageWidthMm) / 2)
</script>

<template>
  <svg :viewBox="`0 0 ${W} ${H}`" class="drawn block h-auto w-full" role="img" :aria-label="label">
    <text x="14" y="22" font-size="18" fill="var(--mat-ink)">frame</text>
    <text :x="CENTRE" y="22" font-size="18" fill="var(--mat-soft)" text-anchor="middle">true across; height ×4</text>
    <text x="455" y="22" font-size="18" fill="var(--mat-ink)" text-anchor="end">crank</text>
    <g v-for="r in rings" :key="r.teeth">
      <rect
        :x="x(r.chainMm) - 9"
        :y="top(r.teeth)"
        width="18"
        :height="FOOT - top(r.teeth)"
        rx="3"
        fill="var(--bone)"
      />
      <text :x="x(r.chainMm)" :y="FOOT + 20" font-size="20" text-anchor="middle" fill="var(--mat-ink)" class="figure">
        {{ r.teeth }}
      </text>
    </g>
    <path :d="`M14 ${FOOT}H455`" stroke="var(--mat-line)" stroke-width="2" />
    <rect
      :x="x(chainMm) - (chainWidthMm * PX) / 2"
      :y="onTop - 22"
      :width="chainWidthMm * PX"
      height="26"
      rx="5"
      fill="none"
      stroke="var(--mat-out)"
      stroke-width="5"
    />
    <g v-for="side in [-1, 1] as const" :key="side">
      <path :d="`M${plate(side)} ${plateFoot}V${44 + (side < 0 ? 0 : -4)}`" stroke="var(--mat-ink)" stroke-width="7" />
    </g>
    <path :d="`M${plate(-1)} 46H${plate(1)}`" stroke="var(--mat-ink)" stroke-width="5" />
    <path d="M470 34V286" stroke="var(--mat-line)" />
    <text x="580" y="22" font-size="18" fill="var(--mat-soft)" text-anchor="middle">from above</text>
    <path d="M490 190H672" stroke="var(--bone)" stroke-width="12" />
    <text x="580" y="222" font-size="18" fill="var(--mat-soft)" text-anchor="middle">big ring</text>
    <g :transform="`translate(580 138) rotate(${-angleDeg})`">
      <path d="M-84 -26H70Q84 -26 90 -18M-84 26H70Q84 26 90 18" fill="none" stroke="var(--mat-ink)" stroke-width="6" />
    </g>
  </svg>
</template>
