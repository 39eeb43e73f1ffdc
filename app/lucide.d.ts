// An icon is asked for by its own path: asked of the package itself, every build reads all 1,850 of them, and the bench
// carries those that other pages draw.
declare module '@lucide/vue/dist/esm/icons/*.mjs' {
  import type { LucideIcon } from '@lucide/vue'

  const icon: LucideIcon
  export default icon
}
