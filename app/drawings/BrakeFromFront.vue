<!-- A brake as an eye sees it: the lever at its bar, the pads beside rim or rotor from the front, the wheel from the
     side. No store, no physics. -->
<script setup lang="ts">
const props = defineProps<{
  /** Lever: 0 open, 1 at the bar. Pads: 0 let go, 1 at the track. Rim: −1 to 1, at a pad. */
  pose: { lever: number; left: number; right: number; rim: number; wheelTurns: number }
  /** Shares: life left, and how far below the track they meet it. */
  pads: { life: number; glazed: boolean; below: number }
  disc: boolean
  label: string
}>()
const W = 690
const H = 260
const MIDDLE = 345
const GAP = 26 // px between pad and track, let go
const half = computed(() => (props.disc ? 7 : 26))
const rimX = computed(() => MIDDLE + props.pose.rim * GAP)
const thick = computed(() => 6 + 26 * props.pads.life)
const padX = (side: -1 | 1) =>
  MIDDLE + side * (half.value + GAP * (1 - (side < 0 ? props.pose.left : props.pose.right)))
const padY = computed(() => 92 + props.pads.below * 50)
/** The blade swings about its pivot: open, and lying on the bar. */
const swing = computed(() => 26 * (1 - props.pose.lever))
</script>

<template>
  <svg :viewBox="`0 0 ${W} ${H}`" class="drawn block h-auto w-full" role="img" :aria-label="label">
    <text x="14" y="22" font-size="18" fill="var(--mat-soft)">lever and bar</text>
    <rect x="20" y="70" width="170" height="22" rx="11" fill="var(--mat-mid)" />
    <circle cx="44" cy="104" r="9" fill="var(--bone)" />
    <g :transform="`translate(44 104) rotate(${swing})`">
      <path d="M0 -7H118Q134 -7 134 3Q134 11 122 11H0Z" fill="var(--mat-ink)" />
    </g>
    <text :x="MIDDLE" y="22" font-size="18" fill="var(--mat-soft)" text-anchor="middle">
      {{ disc ? 'pads and rotor, from the front' : 'pads and rim, from the front' }}
    </text>
    <g :transform="`translate(${rimX} 0)`">
      <rect v-if="disc" x="-7" y="50" width="14" height="180" fill="var(--bone)" />
      <template v-else>
        <path d="M-22 84Q-34 40 0 38Q34 40 22 84Z" fill="var(--mat-mid)" />
        <rect x="-26" y="84" width="52" height="64" rx="3" fill="var(--bone)" />
        <path d="M-26 96H26M-26 136H26" stroke="var(--mat-soft)" stroke-width="2" />
        <path d="M0 148V232" stroke="var(--bone)" stroke-width="4" />
      </template>
    </g>
    <g v-for="side in [-1, 1] as const" :key="side" :transform="`translate(${padX(side)} ${padY})`">
      <rect :x="side < 0 ? -thick : 0" y="0" :width="thick" height="46" rx="3" fill="var(--mat-ink)" />
      <path
        v-if="pads.glazed"
        :d="side < 0 ? 'M-3 4V42' : 'M3 4V42'"
        stroke="var(--mat-in)"
        stroke-width="5"
        stroke-dasharray="10 3"
      />
      <path
        :d="side < 0 ? `M${-thick} 12H-78V${236 - padY}` : `M${thick} 12H78V${236 - padY}`"
        fill="none"
        stroke="var(--mat-mid)"
        stroke-width="14"
        stroke-linejoin="round"
      />
    </g>
    <text :x="590" y="22" font-size="18" fill="var(--mat-soft)" text-anchor="middle">the wheel</text>
    <g :transform="`translate(590 140) rotate(${pose.wheelTurns * 360})`">
      <circle r="86" fill="none" stroke="var(--bone)" stroke-width="9" />
      <path d="M0 -82V82M-82 0H82M-58 -58L58 58M-58 58L58 -58" stroke="var(--mat-dim)" stroke-width="2" />
      <rect x="-9" y="-97" width="18" height="26" rx="3" fill="var(--mat-out)" />
    </g>
  </svg>
</template>
