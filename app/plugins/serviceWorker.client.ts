/** It fetches all of the build: not while the page it comes with still works out what it opens with, ms. */
const AFTER_LOAD_MS = 3000

/**
 * Registers the worker that lets a bench reload without the server; a page whose worker was replaced takes the new
 * files.
 */
export default defineNuxtPlugin(() => {
  if (import.meta.dev || !('serviceWorker' in navigator)) return
  const { serviceWorker } = navigator
  // the first worker takes over a page that already has its files
  let known = serviceWorker.controller !== null
  serviceWorker.addEventListener('controllerchange', () => {
    if (known) location.reload()
    known = true
  })
  const register = () => void setTimeout(() => serviceWorker.register('/sw.js'), AFTER_LOAD_MS)
  if (document.readyState === 'complete') register()
  else window.addEventListener('load', register)
})
