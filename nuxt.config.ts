import tailwindcss from '@tailwindcss/vite'
import { benchInOneFile, leanChapters, leanForms, leanNuxt, leanSchemas, leanZod } from './ops/lean'
import { buildHeavyWorker } from './ops/heavyWorker'

const self = "'self'"
/** The smallest files are sent as they are, so that many of them weigh twice as much as one. */
const FEWER_FILES = { format: 'es', experimentalMinChunkSize: 2000 } as const

export default defineNuxtConfig({
  compatibilityDate: '2026-11-01',
  modules: ['@pinia/nuxt', 'nuxt-security', '@vite-pwa/nuxt', '@nuxt/eslint'],
  devtools: { enabled: false },
  telemetry: false,
  // what runs is not minified on the server, so that its traces read as they are
  sourcemap: false,
  css: ['~/assets/main.css'],
  components: [
    { path: '~/components', pathPrefix: false },
    { path: '~/drawings', pathPrefix: false },
  ],
  app: {
    head: {
      htmlAttrs: { lang: 'en' },
      title: 'Ocho',
      meta: [
        { name: 'viewport', content: 'width=device-width, initial-scale=1' },
        { name: 'theme-color', content: '#0E3B35' },
      ],
      link: [{ rel: 'icon', type: 'image/svg+xml', href: '/mark.svg' }],
    },
  },
  experimental: { appManifest: false, payloadExtraction: false, defaults: { nuxtLink: { prefetch: false } } },
  // the bench and Practice are app shells: drawn in the browser from what the tablet keeps, then from the server
  routeRules: { '/jobs/**': { ssr: false }, '/practice/**': { ssr: false } },
  vite: {
    plugins: [tailwindcss(), leanSchemas(), leanZod(), leanNuxt(), leanForms(), leanChapters(), benchInOneFile()],
    worker: {
      format: 'es',
      plugins: () => [leanSchemas(), leanZod()],
      rollupOptions: { output: FEWER_FILES },
    },
    // every component is written with setup
    define: { __VUE_OPTIONS_API__: 'false' },
    build: { modulePreload: { polyfill: false } },
    // told beforehand, so that a server that reloads does not begin by reloading
    optimizeDeps: {
      include: [
        '@vueuse/core',
        'idb',
        'zod',
        'comlink',
        'd3-scale',
        'date-fns',
        '@tanstack/vue-form',
        '@headlessui/vue',
      ],
    },
  },
  hooks: {
    'nitro:init': nitro => void nitro.hooks.hook('compiled', buildHeavyWorker),
    // no page asks the browser for every other page's files: the service worker fetches them once, and each is small
    'build:manifest': manifest => Object.values(manifest).forEach(file => (file.prefetch = false)),
  },
  nitro: {
    compressPublicAssets: { brotli: true, gzip: true },
    typescript: { tsConfig: { compilerOptions: { noUncheckedIndexedAccess: false } } },
  },
  typescript: {
    tsConfig: { compilerOptions: { noUncheckedIndexedAccess: false } },
    sharedTsConfig: { compilerOptions: { noUncheckedIndexedAccess: false } },
    nodeTsConfig: {
      include: [
        '../core/**/*',
        '../e2e/**/*',
        '../ops/**/*',
        '../demo/**/*',
        '../bench/**/*',
        '../server/db/**/*',
        '../server/auth/**/*',
        '../*.config.ts',
      ],
      compilerOptions: { noUncheckedIndexedAccess: false },
    },
  },
  eslint: { config: { stylistic: false } },
  security: {
    headers: {
      crossOriginEmbedderPolicy: false,
      // said over HTTPS alone: server/middleware/origin.ts
      strictTransportSecurity: false,
      // a photograph of the bike, what the gears sound like, a gauge on a line, and a screen that stays on while hands
      // are on the bike
      permissionsPolicy: { camera: ['self'], microphone: ['self'], serial: ['self'], 'screen-wake-lock': ['self'] },
      contentSecurityPolicy: {
        'default-src': ["'none'"],
        'base-uri': ["'none'"],
        'form-action': [self],
        'frame-ancestors': ["'none'"],
        'object-src': ["'none'"],
        'script-src': [self, "'nonce-{{nonce}}'", "'strict-dynamic'"],
        'script-src-attr': ["'none'"],
        'style-src': [self, "'nonce-{{nonce}}'"],
        'style-src-attr': ["'unsafe-inline'"],
        'worker-src': [self],
        'connect-src': [self],
        'font-src': [self],
        'manifest-src': [self],
        'img-src': [self, 'data:', 'blob:'],
        'upgrade-insecure-requests': false,
      },
    },
    xssValidator: false,
    rateLimiter: false,
    requestSizeLimiter: false,
  },
  pwa: {
    strategies: 'injectManifest',
    srcDir: 'worker',
    filename: 'sw.ts',
    registerType: 'autoUpdate',
    injectManifest: {
      globPatterns: ['**/*.{js,css,woff2,svg}'],
      // names in other scripts are fetched where one is shown
      globIgnores: ['**/noto-sans-*'],
      maximumFileSizeToCacheInBytes: 4_000_000,
    },
    // plugins/serviceWorker.client.ts does it in a few lines
    injectRegister: null,
    client: { registerPlugin: false, installPrompt: false },
    manifest: {
      name: 'Ocho',
      short_name: 'Ocho',
      description: 'The bench companion for cable-shifted gears',
      theme_color: '#0E3B35',
      background_color: '#EDF0EE',
      icons: [{ src: '/mark.svg', sizes: 'any', type: 'image/svg+xml' }],
    },
    devOptions: { enabled: false },
  },
})
