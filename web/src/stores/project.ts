import { defineStore } from 'pinia'
import { computed, ref, shallowReactive, shallowRef, watch } from 'vue'
import { client, need, ServerError, type Problem, type Schemas } from '@/api/client'
import type { Clip, Document, Edit, FrameRate, Step, Track } from '@/api/types'
import { useNotes } from '@/stores/notes'
import type { Source } from '@/api/source'
import {
  makeLine,
  type Answer,
  type Ask,
  type Done,
  type Line,
  type State,
  type Waiting,
} from '@/steps/line'
import { outbox } from '@/steps/outbox'
import { patched, type Operation } from '@/steps/patched'
import { pause } from '@/steps/pauses'
import { post } from '@/steps/post'
import { findGroup } from '@/stores/groups'
import { changesPicture } from '@/stores/visible'
import { t } from '@/texts'
import { frameOf } from '@/time'

type Position = Omit<State, 'id' | 'name' | 'document'>
type Move = 'undo' | 'redo'
type Refused = (problem: Problem) => boolean
const NONE: Edit[] = []

/** The open project: its document, and its line of steps on their way to the server. */
export const useProject = defineStore('project', () => {
  const notes = useNotes()
  const id = ref('')
  const name = ref('')
  const document = shallowRef<Document | null>(null)
  const revision = ref(0)
  /** The last revision that looks and sounds other than the one before: what pictures are of. */
  const seen = ref(0)
  const step = ref(0)
  const label = ref('')
  const canUndo = ref(false)
  const canRedo = ref(false)
  /** Counts steps that were refused: whatever showed one as done shows what is again. */
  const refusals = ref(0)
  /** Lines of this project, and of others that were left while steps waited. */
  const lines = shallowReactive(new Map<string, Line>())
  const takers = new Map<string, Refused>()
  /** The groups that are open, from the outside in. */
  const opened = ref<string[]>([])

  const line = computed(() => lines.get(id.value) ?? null)
  /** Steps of the open project that are not acknowledged. */
  const waiting = computed(() => line.value?.waiting.value.length ?? 0)
  const trouble = computed(() => line.value?.trouble.value ?? '')
  const waitingAnywhere = computed(() =>
    [...lines.values()].some((one) => one.waiting.value.length > 0),
  )
  /** The edits that wait, for pictures to be drawn with them while nobody acknowledges them. */
  const pending = computed(() => {
    const asks = trouble.value ? (line.value?.waiting.value ?? []).map((one) => one.ask) : []
    const ways = asks.findIndex((ask) => ask.kind !== 'edit')
    const edits = ways < 0 ? asks : asks.slice(0, ways)
    return edits.length ? edits.flatMap((ask) => (ask.kind === 'edit' ? [ask.edit] : [])) : NONE
  })

  const rate = computed<FrameRate>(() => {
    const set = document.value?.rate
    return { num: set?.num ?? 30, den: set?.den ?? 1 }
  })
  const within = computed(() => opened.value.at(-1) ?? '')
  const tracks = computed<Track[]>(() => {
    const all = document.value?.tracks ?? []
    return within.value ? (findGroup(all, within.value)?.tracks ?? []) : all
  })
  /** What addresses of pictures say of the open group. */
  const look = computed((): Record<string, string> =>
    within.value ? { within: within.value } : {},
  )
  /** What is shown: the open timeline as it was last seen to change. */
  const source = computed<Source>(() => ({
    base: `/api/projects/${id.value}/revisions/${seen.value}`,
    query: look.value,
    pending: pending.value,
    frames: frames.value,
    rate: rate.value,
  }))
  const markers = computed(() => (within.value ? [] : (document.value?.markers ?? [])))
  const length = computed(() =>
    Math.max(0, ...tracks.value.map((track) => endOf(track.clips.at(-1)))),
  )
  const frames = computed(() => frameOf(length.value, rate.value))

  function take(state: State) {
    id.value = state.id
    name.value = state.name
    document.value = state.document
    place(state)
    seen.value = state.revision
  }

  function place(at: Position) {
    revision.value = at.revision
    step.value = at.step
    label.value = at.label
    canUndo.value = at.can_undo
    canRedo.value = at.can_redo
  }

  function patch(project: string, done: Done) {
    if (project !== id.value || !document.value) return
    const operations = done.patch as unknown as Operation[]
    document.value = patched(document.value, operations)
    place(done)
    if (changesPicture(operations)) seen.value = done.revision
  }

  function replaced(project: string, state: State, elsewhere: boolean) {
    if (project !== id.value) return
    take(state)
    if (elsewhere) notes.told(t('stores.project.theProjectWasChangedElsewhere'))
  }

  function refused({ project, seed }: Waiting, error: unknown) {
    if (project === id.value) refusals.value += 1
    const taken = error instanceof ServerError && takers.get(seed)?.(error.problem)
    if (!taken) notes.problem(error)
  }

  async function fetchState(project: string): Promise<State> {
    const asked = client.GET('/api/projects/{id}', { params: { path: { id: project } } })
    // The client's types forget that points have exactly two numbers.
    return (await need(asked)) as unknown as State
  }

  const world = { outbox, post, fetch: fetchState, pause, patched: patch, replaced, refused }

  /** Open a project; steps of it that were left on this device are sent first. */
  async function open(project: string) {
    id.value = project
    document.value = null
    opened.value = []
    const [state, left] = await Promise.all([fetchState(project), outbox.load(project)])
    if (id.value !== project) return
    take(state)
    lineAt(project, state.revision).resume(left)
  }

  /** Take the newest state, after the server has done something by itself. */
  async function reload() {
    const state = await fetchState(id.value)
    if (state.id !== id.value) return
    take(state)
    lineAt(state.id, state.revision)
  }

  function lineAt(project: string, newest: number): Line {
    const found = lines.get(project) ?? makeLine(project, newest, world)
    lines.set(project, found)
    found.meet(newest)
    return found
  }

  /** Send what any project's steps still wait for, after a reload. */
  async function resumeAll() {
    const left = await outbox.load()
    for (const project of new Set(left.map((step) => step.project))) {
      if (lines.has(project)) continue
      const mine = left.filter((step) => step.project === project)
      try {
        const state = await fetchState(project)
        lineAt(project, state.revision).resume(mine)
      } catch (error) {
        const gone = error instanceof ServerError && error.status === 404
        if (gone) for (const step of mine) outbox.drop(step)
      }
    }
  }

  /** Show the timeline within a group, or with an empty id that around the innermost one open. */
  function enter(group: string) {
    opened.value = group ? [...opened.value, group] : opened.value.slice(0, -1)
  }

  function leaveTo(depth: number) {
    opened.value = opened.value.slice(0, depth)
  }

  watch(document, (now) => {
    const all = now?.tracks ?? []
    const gone = opened.value.findIndex((group) => !findGroup(all, group))
    if (gone >= 0) leaveTo(gone)
  })

  async function send(ask: Ask, seed = newSeed()): Promise<Answer> {
    return (await line.value?.push(ask, seed)) ?? { good: false, made: [] }
  }

  /** A step as it is sent: with a seed for new ids, and the group that is open. */
  function whole(what: Step): Schemas['StepIn']['edit'] {
    const group = within.value ? { within: within.value } : {}
    return { seed: newSeed(), ...group, ...what } as Schemas['StepIn']['edit']
  }

  /** `taken` may take a refusal on itself by returning true; otherwise it is shown as a note. */
  async function edit(what: Step, taken?: Refused): Promise<boolean> {
    return (await make(what, taken)).good
  }

  /** The same, telling what the step made. */
  function make(what: Step, taken?: Refused): Promise<Answer> {
    const edit = whole(what)
    const seed = edit.seed ?? newSeed()
    if (taken) takers.set(seed, taken)
    return send({ kind: 'edit', edit }, seed).finally(() => takers.delete(seed))
  }

  /** Go to any step of the history, after all that was sent before. */
  const goTo = (revision: number) => send({ kind: 'go', revision })

  async function go(where: Move): Promise<boolean> {
    const told = where === 'undo' ? label.value : ''
    if (where === 'undo' && line.value?.takeBack()) {
      notes.told(t('stores.project.theStepThatWaitedIs'))
      return true
    }
    const { good } = await send({ kind: where })
    if (good)
      notes.told(
        where === 'undo'
          ? t('stores.project.undone', { told })
          : t('stores.project.doneAgain', { label: label.value }),
      )
    return good
  }

  async function rename(to: string) {
    const path = { id: id.value }
    await need(client.PATCH('/api/projects/{id}', { params: { path }, body: { name: to } }))
    if (path.id === id.value) name.value = to
  }

  function findClip(clipId: string): { clip: Clip; track: Track } | null {
    for (const track of tracks.value) {
      const clip = track.clips.find((one) => one.id === clipId)
      if (clip) return { clip, track }
    }
    return null
  }

  return {
    id,
    name,
    document,
    revision,
    seen,
    step,
    canUndo,
    canRedo,
    waiting,
    waitingAnywhere,
    trouble,
    refusals,
    resumeAll,
    sendNow: () => line.value?.again(),
    rate,
    tracks,
    markers,
    opened,
    within,
    look,
    source,
    enter,
    leaveTo,
    whole,
    goTo,
    length,
    frames,
    open,
    reload,
    edit,
    make,
    undo: () => go('undo'),
    redo: () => go('redo'),
    rename,
    findClip,
  }
})

export function startOf(clip: Clip): number {
  return clip.start ?? 0
}

export function endOf(clip: Clip | undefined): number {
  return clip ? (clip.start ?? 0) + clip.length : 0
}

/** What new clips of an edit are named after; the server derives their ids from it. */
export function newSeed(): string {
  return crypto.getRandomValues(new Uint32Array(2)).join('-')
}
