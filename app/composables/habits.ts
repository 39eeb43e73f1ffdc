import { useLocalStorage, useWakeLock } from '@vueuse/core'

/**
 * What this device does at the bench, on until somebody turns it off: a tick when something is logged, the screen kept
 * awake.
 */
export const useHabits = () => ({
  tick: useLocalStorage<'on' | 'off'>('ocho-tick', 'on'),
  awake: useLocalStorage<'on' | 'off'>('ocho-awake', 'on'),
})

/** Keeps the screen awake while a bench is open, unless it was turned off here. */
export function useAwake(): void {
  const { awake } = useHabits()
  const lock = useWakeLock()
  onMounted(() => {
    watch(
      awake,
      now => {
        if (!lock.isSupported.value) return
        void (now === 'on' ? lock.request('screen') : lock.release()).catch(() => undefined)
      },
      { immediate: true },
    )
  })
}
