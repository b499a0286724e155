/* Hands every block of samples on to the page; runs in the browser's audio thread. */
class Recorder extends AudioWorkletProcessor {
  constructor() {
    super()
    this.block = new Float32Array(2048)
    this.filled = 0
  }

  process([input]) {
    const samples = input[0]
    if (!samples) return true
    this.block.set(samples, this.filled)
    this.filled += samples.length
    if (this.filled >= this.block.length) {
      this.port.postMessage(this.block)
      this.block = new Float32Array(2048)
      this.filled = 0
    }
    return true
  }
}

registerProcessor('recorder', Recorder)
