/** Samples (one channel, full scale 1) as a WAV file of 16 bits. */
export function wavOf(blocks: Float32Array[], rate: number): Blob {
  const count = blocks.reduce((sum, block) => sum + block.length, 0)
  const view = new DataView(new ArrayBuffer(44 + count * 2))
  const text = (at: number, word: string) =>
    [...word].forEach((letter, i) => view.setUint8(at + i, letter.charCodeAt(0)))
  text(0, 'RIFF')
  view.setUint32(4, 36 + count * 2, true)
  text(8, 'WAVEfmt ')
  view.setUint32(16, 16, true)
  view.setUint16(20, 1, true)
  view.setUint16(22, 1, true)
  view.setUint32(24, rate, true)
  view.setUint32(28, rate * 2, true)
  view.setUint16(32, 2, true)
  view.setUint16(34, 16, true)
  text(36, 'data')
  view.setUint32(40, count * 2, true)
  let at = 44
  for (const block of blocks) {
    for (const sample of block) {
      view.setInt16(at, Math.round(Math.min(1, Math.max(-1, sample)) * 32767), true)
      at += 2
    }
  }
  return new Blob([view], { type: 'audio/wav' })
}

/** Peak of samples in dB of full scale, at least -60. */
export function peakDb(samples: ArrayLike<number>): number {
  let peak = 0
  for (let i = 0; i < samples.length; i++) peak = Math.max(peak, Math.abs(samples[i] ?? 0))
  return peak > 0.001 ? 20 * Math.log10(peak) : -60
}
