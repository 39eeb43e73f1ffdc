/*
 * What a microphone gives, in portions, from the browser's own sound thread to the page: none is lost while the page is
 * busy. It keeps nothing. Fetched by app/composables/microphone.ts.
 */
const PORTION = 4096

registerProcessor(
  'take-samples',
  class extends AudioWorkletProcessor {
    portion = new Float32Array(PORTION)
    filled = 0

    process([input]) {
      const samples = input[0]
      // nothing is connected yet, or no longer
      if (!samples) return true
      this.portion.set(samples, this.filled)
      this.filled += samples.length
      if (this.filled + samples.length > PORTION) {
        this.port.postMessage(this.portion.subarray(0, this.filled))
        this.filled = 0
      }
      return true
    }
  },
)
