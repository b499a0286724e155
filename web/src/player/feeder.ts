import { gridOf, nextPiece } from './pieces'
import { fetchPiece, PICTURE_TYPE, SOUND_TYPE, type PieceKind, type Source } from './source'

const AHEAD = 4
/** Seconds kept ready before the playhead. */
const LONG_SIDE = 640
const STALL = 700
/** Milliseconds without movement, with data there, after which the player is nudged. */

type MediaSourceClass = typeof MediaSource

/** What this browser plays pieces with; some phones have it under another name. */
export function mediaSourceClass(): MediaSourceClass | null {
  const all = window as unknown as Record<string, MediaSourceClass | undefined>
  const found = all.MediaSource ?? all.ManagedMediaSource
  const plays = (type: string) => found?.isTypeSupported(type) ?? false
  return found && plays(PICTURE_TYPE) && plays(SOUND_TYPE) ? found : null
}

interface Events {
  /** A frame is on the screen. */
  frame(number: number): void
  /** The last frame has been shown. */
  end(): void
  problem(error: unknown): void
}

const AT_ONCE = 2
/** Pieces of a kind that are on their way at once. */
const BEHIND = 8
/** Seconds that stay after they were played. */
const pause = () => new Promise((done) => window.setTimeout(done, 120))

let lanes = 0

/**
 * Plays a source from a frame on: asks the server for pieces of picture and sound, keeps a few
 * seconds of them ahead, and tells which frame is shown. Made for one start; stopped for good.
 */
export class Feeder {
  private readonly stopped = new AbortController()
  private readonly media: MediaSource
  private readonly url: string
  private readonly lane = `player-${Date.now()}-${++lanes}`
  private watch = 0
  private callback = 0
  private unfed = 2

  constructor(
    private readonly video: HTMLVideoElement,
    private readonly source: Source,
    private readonly events: Events,
  ) {
    const Media = mediaSourceClass()
    if (!Media) throw new Error('This browser cannot play; scrubbing and stepping still work.')
    this.media = new Media()
    this.url = URL.createObjectURL(this.media)
  }

  private get fps(): number {
    return this.source.rate.num / this.source.rate.den
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
    if (this.stopped.signal.aborted) return
    this.media.duration = this.source.frames / this.fps
    this.video.currentTime = (frame + 0.5) / this.fps
    const picture = this.feed('picture', PICTURE_TYPE, frame)
    const sound = this.feed('sound', SOUND_TYPE, frame)
    this.follow()
    this.watchForStalls()
    await Promise.race([Promise.all([picture.first, sound.first]), this.whenStopped()])
    if (this.stopped.signal.aborted) return
    await begun
  }

  stop(): void {
    if (this.stopped.signal.aborted) return
    this.stopped.abort()
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

  /** Fetch and append pieces of one kind to the end; `first` settles with the first of them. */
  private feed(kind: PieceKind, type: string, frame: number): { first: Promise<void> } {
    const buffer = this.media.addSourceBuffer(type)
    let arrived = () => {}
    const first = new Promise<void>((done) => {
      arrived = done
    })
    const run = async () => {
      const ask = this.asking(kind, frame)
      // Both kinds begin with one piece each, so that neither keeps the other from starting.
      const coming = [ask()]
      for (let piece = coming.shift(); piece; piece = coming.shift()) {
        await this.append(buffer, await piece.data)
        if (this.stopped.signal.aborted) return
        arrived()
        await this.untilNeeded(piece.end)
        while (coming.length < AT_ONCE) {
          const next = ask()
          if (!next) break
          coming.push(next)
        }
      }
      this.fed()
    }
    run().catch((error: unknown) => {
      if (!this.stopped.signal.aborted) this.events.problem(error)
    })
    return { first }
  }

  /** Asks for one piece after another; null after the last. */
  private asking(kind: PieceKind, frame: number) {
    const { signal } = this.stopped
    const grid = gridOf(this.fps)
    let at = frame
    return () => {
      if (at >= this.source.frames || signal.aborted) return null
      const { first, last } = nextPiece(at, this.source.frames, grid)
      at = last
      const ask = { longSide: LONG_SIDE, lane: this.lane, turn: 0, signal }
      const data = fetchPiece(this.source, kind, first, last, ask)
      data.catch(() => {})
      return { end: last, data }
    }
  }

  /** One kind has come to its end; after both the element may run out, and says so. */
  private fed() {
    this.unfed -= 1
    if (this.unfed || this.stopped.signal.aborted || this.media.readyState !== 'open') return
    this.media.endOfStream()
  }

  /** Append a piece, and let go of what was played long ago; a full buffer is waited for. */
  private async append(buffer: SourceBuffer, data: ArrayBuffer): Promise<void> {
    while (!this.stopped.signal.aborted) {
      try {
        await this.changed(buffer, () => buffer.appendBuffer(data))
        return await this.letGo(buffer, BEHIND)
      } catch (error) {
        const full = error instanceof DOMException && error.name === 'QuotaExceededError'
        if (!full) throw error
        await this.letGo(buffer, 0.5)
        await pause()
      }
    }
  }

  private async letGo(buffer: SourceBuffer, behind: number): Promise<void> {
    const end = this.video.currentTime - behind
    if (this.stopped.signal.aborted || !buffer.buffered.length || buffer.buffered.start(0) >= end) {
      return
    }
    await this.changed(buffer, () => buffer.remove(0, end))
  }

  private changed(buffer: SourceBuffer, change: () => void): Promise<void> {
    return new Promise((done, failed) => {
      buffer.onupdateend = () => done()
      buffer.onerror = () => failed(new Error('A piece of the film could not be played.'))
      change()
    })
  }

  /** Wait while enough lies ahead. */
  private async untilNeeded(end: number): Promise<void> {
    while (!this.stopped.signal.aborted && end / this.fps - this.video.currentTime > AHEAD) {
      await pause()
    }
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
      else if (now - since > STALL && this.isBuffered(currentTime)) {
        this.video.currentTime = currentTime + 0.001
        since = now
      }
    }, 200)
  }

  private isBuffered(time: number): boolean {
    const { buffered } = this.video
    for (let i = 0; i < buffered.length; i++) {
      if (buffered.start(i) <= time && buffered.end(i) > time + 0.2) return true
    }
    return false
  }
}
