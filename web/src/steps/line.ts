import { ref, shallowRef } from 'vue'
import { ServerError, type Schemas } from '@/api/client'
import type { Edit } from '@/api/types'
import { t } from '@/texts'
import type { Outbox } from './outbox'
import { isSignedOut, passes } from './pauses'

export type Done = Schemas['StepDone']
export type State = Schemas['State']

/** What is asked of the server: a step, or to go along the history. */
export type Ask =
  { kind: 'edit'; edit: Edit } | { kind: 'undo' | 'redo' } | { kind: 'go'; revision: number }

/** A step that the server has not acknowledged. */
export interface Waiting {
  project: string
  /** Its name; sent twice, the server does it once. */
  seed: string
  /** When it was made: the order of sending. */
  made: number
  ask: Ask
  /** Of a way along the history: the revision from which it was first asked. */
  from: number | null
  tries: number
}

/** Why steps wait: nobody answers, or nobody is signed in. */
export type Trouble = '' | 'away' | 'signed-out'

export interface LineWorld {
  outbox: Outbox
  post(project: string, ask: Ask, basedOn: number): Promise<Done | State>
  fetch(project: string): Promise<State>
  pause(tries: number, asked: AbortSignal): Promise<void>
  /** The document is that of `from`, changed; or a whole new one. */
  patched(project: string, done: Done): void
  replaced(project: string, state: State, elsewhere: boolean): void
  /** A step was refused: it is not done, and will not be. */
  refused(step: Waiting, error: unknown): void
}

/** What became of a step; `made` are the ids of what it brought. */
export interface Answer {
  good: boolean
  made: string[]
}

const REFUSED: Answer = { good: false, made: [] }
const STALE_TRIES = 4
const CHANGING = t('steps.line.theProjectIsBeingChanged')

/**
 * The steps of one project on their way to the server, one after another. A step stays in the line,
 * and on the device, until it is answered; when nobody answers it is sent again. A line goes on
 * when its project is left.
 */
export function makeLine(project: string, first: number, world: LineWorld) {
  const waiting = shallowRef<Waiting[]>([])
  const trouble = ref<Trouble>('')
  const settled = new Map<string, (answer: Answer) => void>()
  let revision = first
  let running = false
  let hurry = new AbortController()
  let last = 0
  let stales = 0

  /** Add a step; settles with whether it was done, and what it made. */
  function push(ask: Ask, seed: string): Promise<Answer> {
    last = Math.max(Date.now(), last + 1)
    const step: Waiting = { project, seed, made: last, ask, from: null, tries: 0 }
    waiting.value = [...waiting.value, step]
    world.outbox.keep(step)
    const answer = new Promise<Answer>((done) => settled.set(seed, done))
    run()
    return answer
  }

  /** Go on with steps that were left on the device. */
  function resume(left: Waiting[]) {
    const known = new Set(waiting.value.map((step) => step.seed))
    const more = left.filter((step) => !known.has(step.seed))
    if (more.length) waiting.value = [...more, ...waiting.value].sort((a, b) => a.made - b.made)
    run()
  }

  /** Take back the newest step if it was never sent; whether there was one. */
  function takeBack(): boolean {
    const newest = waiting.value.at(-1)
    if (!newest || newest.tries || newest.ask.kind !== 'edit') return false
    if (running && waiting.value[0] === newest) return false
    settle(newest, REFUSED)
    return true
  }

  async function run() {
    if (signedOut()) trouble.value = ''
    if (running) return
    running = true
    while (waiting.value[0] && !signedOut()) await attempt(waiting.value[0])
    running = false
  }

  const signedOut = () => trouble.value === 'signed-out'

  async function attempt(step: Waiting) {
    step.tries += 1
    step.from ??= revision
    // A way along the history has no seed that the server knows: remember where it began.
    if (step.ask.kind !== 'edit') await world.outbox.keep(step)
    try {
      const answer = await world.post(project, step.ask, basedOn(step))
      await accept(answer)
      trouble.value = ''
      settle(step, { good: true, made: 'made' in answer ? answer.made : [] })
    } catch (error) {
      await failed(step, error)
    }
  }

  /** A way along the history is meant from where it was first asked, a step for the newest. */
  function basedOn(step: Waiting): number {
    return step.ask.kind === 'edit' ? revision : (step.from ?? revision)
  }

  async function accept(answer: Done | State) {
    if ('document' in answer) {
      revision = answer.revision
      world.replaced(project, answer, false)
    } else if (answer.start === revision) {
      revision = answer.revision
      world.patched(project, answer)
    } else if (answer.revision !== revision) {
      catchUp(await world.fetch(project), false)
    }
  }

  function catchUp(state: State, elsewhere: boolean) {
    revision = state.revision
    world.replaced(project, state, elsewhere)
  }

  async function failed(step: Waiting, error: unknown) {
    if (passes(error)) {
      trouble.value = 'away'
      world.outbox.keep(step)
      hurry = new AbortController()
      await world.pause(step.tries, hurry.signal)
    } else if (isSignedOut(error)) {
      trouble.value = 'signed-out'
    } else if (isStale(error)) {
      stale(step, error.body as State)
    } else {
      refuse(step, error)
    }
  }

  /** The newest state came instead. A way along the history that was asked before has led there. */
  function stale(step: Waiting, state: State) {
    const again = step.tries > 1
    catchUp(state, step.ask.kind === 'edit' || !again)
    if (step.ask.kind !== 'edit') settle(step, { good: again, made: [] })
    else if (++stales >= STALE_TRIES) refuse(step, new Error(CHANGING))
  }

  function refuse(step: Waiting, error: unknown) {
    settle(step, REFUSED, () => world.refused(step, error))
  }

  function settle(step: Waiting, answer: Answer, tell = () => {}) {
    stales = 0
    waiting.value = waiting.value.filter((one) => one !== step)
    world.outbox.drop(step)
    tell()
    settled.get(step.seed)?.(answer)
    settled.delete(step.seed)
  }

  return {
    project,
    waiting,
    trouble,
    push,
    resume,
    takeBack,
    /** Whoever opens the project knows its newest revision. */
    meet(newest: number) {
      if (!running) revision = newest
    },
    /** Try again now: somebody is back, or has signed in. */
    again() {
      hurry.abort()
      run()
    },
  }
}

export type Line = ReturnType<typeof makeLine>

function isStale(error: unknown): error is ServerError {
  return error instanceof ServerError && error.status === 409
}
