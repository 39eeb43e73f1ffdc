declare module '@lucide/vue/dist/esm/icons/*.mjs' {
  import type { LucideIcon } from '@lucide/vue'

  const icon: LucideIcon
  export default icon
}
