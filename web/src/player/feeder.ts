import { nextRange, reachFrom } from './ranges'
import { PICTURE_TYPE, SOUNDS, type Source } from './source'
import type { Sizing } from './sizing'
import { Supply, gridsOf } from './supply'

/** Milliseconds without movement, with data there, after which the player is nudged. */
const STALL = 700
/** Seconds from now on which another source takes over, at the earliest. */
const SOON = 0.25

type MediaSourceClass = typeof MediaSource

/** What this browser plays pieces with, and the coding of sound that it takes. */
export function playable() {
  const all = window as unknown as Record<string, MediaSourceClass | undefined>
  const Media = all.MediaSource ?? all.ManagedMediaSource
  const plays = (type: string) => Media?.isTypeSupported(type) ?? false
  const sound = SOUNDS.find(({ type }) => plays(type))
  return Media && sound && plays(PICTURE_TYPE) ? { Media, sound } : null
}

interface Events {
  /** A frame is on the screen. */
  frame(number: number): void
  /** The last frame has been shown. */
  end(): void
  problem(error: unknown): void
  /** The sound of some frames has come. */
  heard?(source: Source, first: number, last: number): void
}

let lanes = 0

/**
 * Plays a source from a frame on: gives the video element picture and sound by pieces, and tells
 * which frame is shown. Made for one start; stopped for good.
 */
export class Feeder {
  private readonly stopped = new AbortController()
  private readonly media: MediaSource
  private readonly sound: (typeof SOUNDS)[number]
  private readonly url: string
  private readonly lane = `player-${Date.now()}-${++lanes}`
  private supplies: Supply[] = []
  private watch = 0
  private callback = 0
  private unfed = 0
  private exchanges = 0

  constructor(
    private readonly video: HTMLVideoElement,
    private source: Source,
    private readonly sizing: Sizing,
    private readonly events: Events,
  ) {
    const can = playable()
    if (!can) throw new Error('This browser cannot play; scrubbing and stepping still work.')
    this.media = new can.Media()
    this.sound = can.sound
    this.url = URL.createObjectURL(this.media)
  }

  private get fps(): number {
    return this.source.rate.num / this.source.rate.den
  }

  private get isOver(): boolean {
    return this.stopped.signal.aborted
  }

  async start(frame: number): Promise<void> {
    const opened = new Promise((done) => {
      this.media.addEventListener('sourceopen', done, { once: true })
    })
    this.video.disableRemotePlayback = true
    this.video.src = this.url
    // Browsers that let a page play only from a tap are asked within it; it begins with the pieces.
    const begun = this.video.play()
    begun.catch(() => {})
    await opened
    if (this.isOver) return
    this.media.duration = this.source.frames / this.fps
    this.video.currentTime = (frame + 0.5) / this.fps
    this.supplies = [this.supply('picture', PICTURE_TYPE), this.supply('sound', this.sound.type)]
    this.follow()
    this.watchForStalls()
    await Promise.race([this.feed([frame, frame]), this.whenStopped()])
    if (this.isOver) return
    await begun
  }

  /** Go on with the same film as it is now; what is true no more is shown a little longer. */
  async exchange(source: Source): Promise<void> {
    this.source = source
    if (!this.supplies.length) return
    const mine = ++this.exchanges
    const now = this.video.currentTime
    if (now * this.fps >= source.frames) return this.events.end()
    const joints = this.supplies.map((one) => Math.min(this.joint(one, now), source.frames))
    await Promise.all(this.supplies.map((one, index) => one.cut(joints[index]! / this.fps)))
    if (this.isOver || mine !== this.exchanges) return
    // Where all had been given it is closed; the first piece opens it and makes it longer.
    if (this.media.readyState === 'open') this.media.duration = source.frames / this.fps
    await this.feed(joints)
  }

  /** The frame from which another source goes on: soon, where pieces begin, with none missing before. */
  private joint(supply: Supply, now: number): number {
    const grid = gridsOf[supply.kind](this.fps)
    const soon = Math.ceil(((now + SOON) * this.fps) / grid) * grid
    // A frame that began and is not whole is missing.
    return Math.min(soon, Math.floor(supply.reach(now) * this.fps + 0.01))
  }

  /** Go on from another frame, if what is there has been given and not let go of. */
  jump(frame: number): boolean {
    const at = (frame + 0.5) / this.fps
    if (reachFrom(this.video.buffered, at) <= at + SOON) return false
    this.video.currentTime = at
    if (this.video.paused) this.video.play().catch(() => {})
    return true
  }

  stop(): void {
    if (this.isOver) return
    this.stopped.abort()
    for (const one of this.supplies) one.stop()
    window.clearInterval(this.watch)
    if (this.callback) this.video.cancelVideoFrameCallback(this.callback)
    this.video.onended = null
    this.video.pause()
    this.video.removeAttribute('src')
    this.video.load()
    URL.revokeObjectURL(this.url)
  }

  private whenStopped(): Promise<void> {
    return new Promise((done) => {
      this.stopped.signal.addEventListener('abort', () => done(), { once: true })
    })
  }

  private supply(kind: 'picture' | 'sound', type: string): Supply {
    const screen = { media: this.media, video: this.video }
    const ask = { lane: this.lane, coding: this.sound.coding }
    return new Supply(kind, this.media.addSourceBuffer(type), screen, ask, this.sizing, {
      end: () => this.fed(),
      problem: (error) => this.events.problem(error),
      came: (first, last) => kind === 'sound' && this.events.heard?.(this.source, first, last),
    })
  }

  /** Picture and sound, each from a frame on; settles when there is a piece of both. */
  private async feed(frames: number[]): Promise<void> {
    this.unfed = this.supplies.length
    await Promise.all(this.supplies.map((one, index) => one.from(this.source, frames[index]!)))
  }

  /** One kind has come to its end; after both the element may run out, and says so. */
  private fed() {
    this.unfed -= 1
    if (this.unfed || this.isOver || this.media.readyState !== 'open') return
    this.media.endOfStream()
  }

  private follow(): void {
    const shown = (_now: number, facts: VideoFrameCallbackMetadata) => {
      const frame = Math.round(facts.mediaTime * this.fps)
      this.events.frame(Math.min(frame, this.source.frames - 1))
      this.callback = this.video.requestVideoFrameCallback(shown)
    }
    this.callback = this.video.requestVideoFrameCallback(shown)
    this.video.onended = () => this.events.end()
  }

  /** Now and then a browser waits although the data are there, and never ends: help it on. */
  private watchForStalls(): void {
    let before = -1
    let since = performance.now()
    this.watch = window.setInterval(() => {
      const { currentTime, paused } = this.video
      const now = performance.now()
      if (currentTime !== before || paused) {
        before = currentTime
        since = now
        return
      }
      const left = this.source.frames / this.fps - currentTime
      if (left < 3 / this.fps && now - since > 150) this.events.end()
      else if (now - since > STALL) {
        const goOn = this.past(currentTime)
        if (goOn === null) return
        this.video.currentTime = goOn
        since = now
      }
    }, 200)
  }

  /** A moment just past the one at which it stands still, or past a gap that nothing will fill. */
  private past(now: number): number | null {
    const { buffered } = this.video
    return reachFrom(buffered, now) > now + 0.2 ? now + 0.001 : nextRange(buffered, now)
  }
}
