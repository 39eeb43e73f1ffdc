import { useColorMode } from '@vueuse/core'

/** Light or dim ground; the mat stays. The device's own wish until someone chooses. */
export const useTheme = () => {
  const mode = useColorMode({
    attribute: 'data-theme',
    storageKey: 'ocho-theme',
    modes: { dark: 'dim' },
    // it would write a style of its own into the page, which the content policy refuses
    disableTransition: false,
  })
  const flip = () => {
    mode.value = mode.state.value === 'dark' ? 'light' : 'dark'
  }
  return { flip }
}
