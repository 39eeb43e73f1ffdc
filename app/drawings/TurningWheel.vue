<!-- A rear wheel with its tape and the crank that turns it, from the side: counted by who looks. No store, no physics.
  -->
<script setup lang="ts">
defineProps<{ crank: number; wheel: number; label: string }>()
</script>

<template>
  <svg viewBox="0 0 690 300" class="drawn block h-auto w-full" role="img" :aria-label="label">
    <text x="400" y="22" font-size="18" fill="var(--mat-soft)">count the tape past the mark</text>
    <path d="M230 130L498 122M230 178L498 196" stroke="var(--mat-soft)" stroke-width="5" stroke-dasharray="9 4" />
    <g :transform="`translate(230 154) rotate(${wheel * 360})`">
      <circle r="118" fill="none" stroke="var(--bone)" stroke-width="10" />
      <path d="M0 -113V113M-113 0H113M-80 -80L80 80M-80 80L80 -80" stroke="var(--mat-dim)" stroke-width="2" />
      <rect x="-11" y="-132" width="22" height="34" rx="3" fill="var(--mat-out)" />
    </g>
    <circle cx="230" cy="154" r="24" fill="var(--mat-mid)" />
    <path d="M230 20V-2" stroke="var(--mat-ink)" stroke-width="6" />
    <path d="M222 8L230 30L238 8Z" fill="var(--mat-ink)" />
    <g :transform="`translate(498 159) rotate(${crank * 360})`">
      <circle r="38" fill="none" stroke="var(--mat-ink)" stroke-width="6" />
      <rect x="-7" y="-92" width="14" height="96" rx="6" fill="var(--mat-ink)" />
      <rect x="-22" y="-104" width="44" height="16" rx="4" fill="var(--mat-ink)" />
    </g>
  </svg>
</template>
