/** At a bench the screen stays on: both hands are on the bike. Anywhere else it may go dark; where a device refuses, it does. */
export default defineNuxtPlugin(() => {
  const { wakeLock } = navigator
  let held: Promise<WakeLockSentinel | null> | null = null
  const router = useRouter()
  const settle = () => {
    const wanted = document.visibilityState === 'visible' && router.currentRoute.value.path.startsWith('/jobs/')
    if (wanted) held ??= wakeLock?.request('screen').catch(() => null)
    else void held?.then(lock => lock?.release())
    if (!wanted) held = null
  }
  document.addEventListener('visibilitychange', settle)
  router.afterEach(settle)
  settle()
})
