<template>
  <svg viewBox="0 0 22 34" width="22" height="34" aria-hidden="true">
    <g fill="none" stroke="currentColor" stroke-width="3">
      <circle cx="11" cy="8" r="6" />
      <circle cx="11" cy="23.5" r="8.5" />
    </g>
  </svg>
</template>
