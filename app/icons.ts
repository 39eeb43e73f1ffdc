/* The icons that are drawn, each by its own path: asked of the package itself, every build reads all 1,850 of them. */
export { default as ArrowDownToLine } from '@lucide/vue/dist/esm/icons/arrow-down-to-line.mjs'
export { default as Download } from '@lucide/vue/dist/esm/icons/download.mjs'
export { default as Phone } from '@lucide/vue/dist/esm/icons/phone.mjs'
export { default as Printer } from '@lucide/vue/dist/esm/icons/printer.mjs'
export { default as RotateCcw } from '@lucide/vue/dist/esm/icons/rotate-ccw.mjs'
export { default as RotateCw } from '@lucide/vue/dist/esm/icons/rotate-cw.mjs'
export { default as Undo2 } from '@lucide/vue/dist/esm/icons/undo-2.mjs'
