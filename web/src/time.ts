import { TICKS_PER_SECOND, type FrameRate } from '@/api/types'

/** Exact time: ticks and frames. All values are whole numbers below 2^53. */
export function frameTicks(rate: FrameRate): number {
  return (TICKS_PER_SECOND * rate.den) / rate.num
}

export function frameOf(tick: number, rate: FrameRate): number {
  return Math.floor(tick / frameTicks(rate))
}

export function tickOf(frame: number, rate: FrameRate): number {
  return frame * frameTicks(rate)
}

export function nearestFrame(tick: number, rate: FrameRate): number {
  return Math.round(tick / frameTicks(rate))
}

export function rateLabel(rate: FrameRate): string {
  return String(Number((rate.num / rate.den).toFixed(3)))
}

/** Minutes, seconds and frames: `0:03.14`. */
export function clockOf(frame: number, rate: FrameRate): string {
  const nominal = Math.ceil(rate.num / rate.den)
  const seconds = Math.floor(frame / nominal)
  const rest = String(frame % nominal).padStart(2, '0')
  return `${wholeClock(seconds)}.${rest}`
}

/** Minutes and seconds, with hours where needed: `0:42`. */
export function wholeClock(seconds: number): string {
  const hours = Math.floor(seconds / 3600)
  const minutes = Math.floor(seconds / 60) % 60
  const ss = String(Math.floor(seconds % 60)).padStart(2, '0')
  return hours ? `${hours}:${String(minutes).padStart(2, '0')}:${ss}` : `${minutes}:${ss}`
}

/** A length for people: `4.2 s`, from a minute on `1:05`. */
export function lengthLabel(ticks: number): string {
  const seconds = ticks / TICKS_PER_SECOND
  return seconds < 60 ? `${seconds.toFixed(1)} s` : wholeClock(seconds)
}

export function bytesLabel(bytes: number): string {
  if (bytes < 1e6) return `${Math.max(1, Math.round(bytes / 1e3))} kB`
  return bytes < 1e9 ? `${(bytes / 1e6).toFixed(1)} MB` : `${(bytes / 1e9).toFixed(2)} GB`
}
