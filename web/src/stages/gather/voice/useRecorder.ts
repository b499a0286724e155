import { onScopeDispose, ref } from 'vue'
import { recordedAt, type Heard } from './clock'
import type { Moment } from './parts'
import { peakDb, wavOf } from './wav'

const RATE = 48_000

/** Catches samples as they come; runs beside the page, so that none is lost while it is busy. */
const CATCHER = '/recorder.js'

export interface Recording {
  file: Blob
  /** Seconds of it. */
  length: number
  /** Where the film was meanwhile. */
  moments: Moment[]
  /** Seconds of delay that the browser tells of. */
  delay: number
}

/** The microphone, or where there is none (or it is not allowed) a tone that stands in for it. */
export function useRecorder() {
  const level = ref(-60)
  const standIn = ref(false)
  const ready = ref(false)
  const recording = ref(false)
  let context: AudioContext | null = null
  let stream: MediaStream | null = null
  let blocks: Float32Array[] = []
  let caughtSamples = 0
  let heard: Heard[] = []
  let seen: { at: number; film: number }[] = []

  async function open() {
    if (ready.value) return
    context = new AudioContext({ sampleRate: RATE })
    await context.audioWorklet.addModule(CATCHER)
    const source = await microphone(context).catch(() => tone(context as AudioContext))
    const catcher = new AudioWorkletNode(context, 'recorder', { numberOfOutputs: 0 })
    catcher.port.onmessage = ({ data }: MessageEvent<Float32Array>) => caught(data)
    source.connect(catcher)
    await context.resume()
    ready.value = true
  }

  async function microphone(audio: AudioContext): Promise<AudioNode> {
    stream = await navigator.mediaDevices.getUserMedia({
      audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
    })
    return audio.createMediaStreamSource(stream)
  }

  function tone(audio: AudioContext): AudioNode {
    standIn.value = true
    const wave = new OscillatorNode(audio, { frequency: 220 })
    const quiet = new GainNode(audio, { gain: 0.25 })
    wave.connect(quiet)
    wave.start()
    return quiet
  }

  function caught(samples: Float32Array) {
    level.value = Math.max(peakDb(samples), level.value - 2)
    if (!recording.value) return
    blocks.push(samples)
    caughtSamples += samples.length
    const came = performance.now()
    heard.push({ came, begun: came - (caughtSamples / RATE) * 1000 })
  }

  function start() {
    blocks = []
    caughtSamples = 0
    heard = []
    seen = []
    recording.value = true
  }

  /** Where the film is now, in seconds. */
  function mark(film: number) {
    seen.push({ at: performance.now(), film })
  }

  function stop(): Recording | null {
    recording.value = false
    if (!blocks.length || !context) return null
    const length = caughtSamples / RATE
    const times = recordedAt(
      heard,
      seen.map(({ at }) => at),
    )
    const moments = seen.map(({ film }, at) => ({ recorded: times[at] ?? 0, film }))
    const delay = (context.baseLatency || 0) + (context.outputLatency || 0)
    return { file: wavOf(blocks, RATE), length, moments, delay }
  }

  function close() {
    stream?.getTracks().forEach((track) => track.stop())
    context?.close()
    context = null
    ready.value = recording.value = false
  }

  onScopeDispose(close)

  return { level, standIn, ready, recording, open, start, mark, stop, close }
}
