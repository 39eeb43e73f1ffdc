import { taughtKeys } from '~/composables/benchKeys'
import { DEVICES_CHANNEL, takeFigure } from '~/composables/devices'
import { nextMoveWords } from '~/composables/thirdHand'
import { knocksHeard } from './knocks'

/** Listens for this person's pedal and knocks and this tablet's devices, and speaks, as long as its scope lives. */
export function thirdHand(say: (words: string) => void): void {
  const hands = useHands()
  const session = useSession()
  watchEffect(() => {
    taughtKeys.value = hands.value.on ? hands.value.taught : {}
  })
  watch(
    () => (hands.value.on ? hands.value.knocks : null),
    (key, _, onCleanup) => {
      if (key)
        onCleanup(knocksHeard(() => document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }))))
    },
    { immediate: true },
  )
  watch(
    () => (hands.value.on && hands.value.speaks ? nextMoveWords.value : null),
    words => {
      if (!words || !('speechSynthesis' in window)) return
      window.speechSynthesis.cancel()
      window.speechSynthesis.speak(new SpeechSynthesisUtterance(words))
    },
    { immediate: true },
  )
  const channel = new BroadcastChannel(DEVICES_CHANNEL)
  channel.onmessage = ({ data }: MessageEvent<unknown>) => takeFigure(data, session.now?.shop.demo === true, say)
  // from here on it answers
  document.body.dataset.hands = 'on'
  onScopeDispose(() => {
    delete document.body.dataset.hands
    channel.close()
    taughtKeys.value = {}
  })
}
