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

/** How moments are told: by a clock with frames, by timecode, or as a count of frames. */
export type ClockStyle = 'clock' | 'timecode' | 'frames'

export function momentOf(frame: number, rate: FrameRate, style: ClockStyle): string {
  if (style === 'frames') return String(frame)
  return style === 'timecode' ? timecodeOf(frame, rate) : clockOf(frame, rate)
}

/**
 * SMPTE ST 12-1: hours, minutes, seconds and frames. At 29.97 and 59.94 frames a second in drop
 * frame, told by a semicolon: the first numbers of each minute are left out, but not of each tenth.
 */
export function timecodeOf(frame: number, rate: FrameRate): string {
  const nominal = Math.ceil(rate.num / rate.den)
  const drops = rate.den === 1001 && nominal % 30 === 0
  const named = drops ? frame + left(frame, nominal) : frame
  const seconds = Math.floor(named / nominal)
  const two = (value: number) => String(value).padStart(2, '0')
  const whole = [seconds / 3600, (seconds / 60) % 60, seconds % 60].map((one) =>
    two(Math.floor(one)),
  )
  return `${whole.join(':')}${drops ? ';' : ':'}${two(named % nominal)}`
}

/**
 * What a person typed as a moment or a length, in whole frames: `1:02.14` (minutes, seconds,
 * frames), timecode, `2.5` or `2.5 s` (seconds), `75 f`. Null if it is none of these.
 */
export function framesTyped(text: string, rate: FrameRate): number | null {
  const typed = text.trim().toLowerCase().replace(',', '.')
  const fps = rate.num / rate.den
  const single = /^(\d+(?:\.\d+)?)\s*(s|f)?$/.exec(typed)
  if (single) {
    const value = Number(single[1])
    return Math.round(single[2] === 'f' ? value : value * fps)
  }
  const clock = /^(?:(\d+):)?(\d+):(\d+)\.(\d{1,3})$/.exec(typed)
  const code = /^(\d+):(\d+):(\d+)[:;](\d+)$/.exec(typed)
  const whole = /^(?:(\d+):)?(\d+):(\d+)$/.exec(typed)
  const nominal = Math.ceil(fps)
  const sum = (h = '0', m = '0', s = '0', f = '0') =>
    (Number(h) * 3600 + Number(m) * 60 + Number(s)) * nominal + Number(f)
  if (code) return named(sum(code[1], code[2], code[3], code[4]), rate)
  if (clock) return sum(clock[1], clock[2], clock[3], clock[4])
  return whole ? sum(whole[1], whole[2], whole[3]) : null
}

/** The frame that timecode gives a number, counted without the numbers that it leaves out. */
function named(number: number, rate: FrameRate): number {
  const nominal = Math.ceil(rate.num / rate.den)
  if (rate.den !== 1001 || nominal % 30) return number
  const minutes = Math.floor(number / (nominal * 60))
  return number - (nominal / 15) * (minutes - Math.floor(minutes / 10))
}

/** How many numbers were left out before a frame. */
function left(frame: number, nominal: number): number {
  const each = nominal / 15
  const minute = nominal * 60 - each
  const ten = minute * 10 + each
  const rest = frame % ten
  const minutes = rest < minute + each ? 0 : Math.floor((rest - each) / minute)
  return each * (Math.floor(frame / ten) * 9 + minutes)
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
