import { gridOf, nextPiece, soundGridOf } from './pieces'
import { reachFrom } from './ranges'
import type { Sizing } from './sizing'
import { fetchPiece, type PieceAsk, type PieceKind, type Source } from './source'

/** Seconds kept ready before the playhead. */
const AHEAD = 4
/** Seconds that stay after they were played. */
const BEHIND = 8
/** Pieces that are on their way at once. */
const AT_ONCE = 2

const pause = () => new Promise((done) => window.setTimeout(done, 120))

/** Frames of their pieces, at frames a second. */
export const gridsOf = { picture: gridOf, sound: soundGridOf }

/** Where pieces go, and what tells how far they are needed. */
export interface Screen {
  media: MediaSource
  video: HTMLVideoElement
}

/**
 * Pieces of one kind, picture or sound: fetched a few seconds ahead of the playhead and appended to
 * one buffer, up to the end of the source.
 */
export class Supply {
  private run = new AbortController()
  /** Changes of the buffer, one after another. */
  private changes: Promise<void> = Promise.resolve()

  constructor(
    readonly kind: PieceKind,
    private readonly buffer: SourceBuffer,
    private readonly screen: Screen,
    private readonly ask: Pick<PieceAsk, 'lane' | 'coding'>,
    private readonly sizing: Sizing,
    private readonly events: {
      end(): void
      problem(error: unknown): void
      came?(first: number, last: number): void
    },
  ) {}

  /** Give pieces of a source from a frame on; settles with the first of them, or without any. */
  from(source: Source, frame: number): Promise<void> {
    const { signal } = (this.run = new AbortController())
    return new Promise((first) => {
      this.give(source, frame, signal, first)
        .then(() => signal.aborted || this.events.end())
        .catch((error: unknown) => signal.aborted || this.events.problem(error))
        .finally(first)
    })
  }

  /** Up to where, in seconds, all was given from a moment on. */
  reach(at: number): number {
    return reachFrom(this.buffer.buffered, at)
  }

  /** No more pieces; what lies after a moment, in seconds, is not true any more. */
  async cut(at: number): Promise<void> {
    this.run.abort()
    await this.remove(at, Infinity)
  }

  stop(): void {
    this.run.abort()
  }

  private async give(source: Source, frame: number, signal: AbortSignal, first: () => void) {
    const fps = source.rate.num / source.rate.den
    const ask = this.asking(source, frame, fps, signal)
    // Both kinds begin with one piece each, so that neither keeps the other from starting.
    const coming = [ask()]
    for (let piece = coming.shift(); piece; piece = coming.shift()) {
      await this.append(await piece.data, signal)
      if (signal.aborted) return
      first()
      await this.untilNeeded(piece.end / fps, signal)
      while (coming.length < AT_ONCE) {
        const next = ask()
        if (!next) break
        coming.push(next)
      }
    }
  }

  /** Asks for one piece after another; null after the last. */
  private asking(source: Source, frame: number, fps: number, signal: AbortSignal) {
    const grid = gridsOf[this.kind](fps)
    let at = frame
    return () => {
      if (at >= source.frames || signal.aborted) return null
      const { first, last } = nextPiece(at, source.frames, grid)
      at = last
      const ask = { ...this.ask, longSide: this.sizing.longSide, turn: 0, signal }
      const asked = performance.now()
      const data = fetchPiece(source, this.kind, first, last, ask)
      const came = () => this.sizing.came((last - first) / fps, (performance.now() - asked) / 1000)
      data
        .then(() => (this.kind === 'picture' ? came() : this.events.came?.(first, last)))
        .catch(() => {})
      return { end: last, data }
    }
  }

  /** Append a piece, and let go of what was played long ago; a full buffer is waited for. */
  private async append(data: ArrayBuffer, signal: AbortSignal): Promise<void> {
    const { video } = this.screen
    while (!signal.aborted) {
      try {
        await this.changed(() => !signal.aborted && this.buffer.appendBuffer(data))
        return await this.remove(0, video.currentTime - BEHIND)
      } catch (error) {
        const full = error instanceof DOMException && error.name === 'QuotaExceededError'
        if (!full) throw error
        await this.remove(0, video.currentTime - 0.5)
        await pause()
      }
    }
  }

  private remove(from: number, to: number): Promise<void> {
    return this.changed(() => {
      const { buffered } = this.buffer
      const last = buffered.length - 1
      if (last < 0 || buffered.end(last) <= from || buffered.start(0) >= to) return false
      this.buffer.remove(from, to)
    })
  }

  /** Change the buffer once it is idle, and wait until it is again; `change` may find it needless. */
  private changed(change: () => unknown): Promise<void> {
    const done = this.changes.then(
      () =>
        new Promise<void>((settle, failed) => {
          if (this.screen.media.readyState === 'closed' || change() === false) return settle()
          this.buffer.onupdateend = () => settle()
          this.buffer.onerror = () => failed(new Error('A piece of the film could not be played.'))
        }),
    )
    this.changes = done.catch(() => {})
    return done
  }

  /** Wait while enough lies ahead, or while the browser that manages its memory wants no more. */
  private async untilNeeded(end: number, signal: AbortSignal): Promise<void> {
    const media = this.screen.media as MediaSource & { streaming?: boolean }
    const enough = () => end - this.screen.video.currentTime > AHEAD || media.streaming === false
    while (!signal.aborted && enough()) await pause()
  }
}
