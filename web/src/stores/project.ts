import { applyPatch, deepClone, type Operation } from 'fast-json-patch'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { client, need, ServerError, type Problem, type Schemas } from '@/api/client'
import type { Clip, Document, FrameRate, Step, Track } from '@/api/types'
import { useNotes } from '@/stores/notes'
import type { Source } from '@/player/source'
import { findGroup } from '@/stores/groups'
import { changesPicture } from '@/stores/visible'
import { frameOf } from '@/time'

type Done = Schemas['StepDone']
type State = Schemas['State']
type Position = Omit<State, 'id' | 'name' | 'document'>
type Move = 'undo' | 'redo'

/** The open project: its document, and the steps on their way to the server, one after another. */
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
  const waiting = ref(0)
  /** The groups that are open, from the outside in. */
  const opened = ref<string[]>([])
  let line: Promise<unknown> = Promise.resolve()

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

  function patch(done: Done) {
    if (!document.value) return
    const operations = done.patch as unknown as Operation[]
    document.value = applyPatch(deepClone(document.value) as Document, operations).newDocument
    place(done)
    if (changesPicture(operations)) seen.value = done.revision
  }

  async function fetchState(project: string): Promise<State> {
    const asked = client.GET('/api/projects/{id}', { params: { path: { id: project } } })
    // The client's types forget that points have exactly two numbers.
    return (await need(asked)) as unknown as State
  }

  async function open(project: string) {
    document.value = null
    opened.value = []
    take(await fetchState(project))
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

  /**
   * Send something that changes the document, after all that was sent before. If somebody else
   * changed the project meanwhile, their version is taken over and the step is done again on it.
   */
  function send(
    post: (based: number) => Promise<Done>,
    refused?: (problem: Problem) => boolean,
  ): Promise<boolean> {
    const mine = line.then(async () => {
      waiting.value += 1
      try {
        for (let attempt = 0; attempt < 4; attempt++) {
          try {
            patch(await post(revision.value))
            return true
          } catch (error) {
            if (!(error instanceof ServerError && error.status === 409)) throw error
            await catchUp()
          }
        }
        throw new Error('The project is being changed elsewhere all the time. Try again.')
      } catch (error) {
        const taken = error instanceof ServerError && refused?.(error.problem)
        if (!taken) notes.problem(error)
        return false
      } finally {
        waiting.value -= 1
      }
    })
    line = mine
    return mine
  }

  async function catchUp() {
    take(await fetchState(id.value))
    notes.told('The project was changed elsewhere. Your step was added to the newest version.')
  }

  /** A step as it is sent: with a seed for new ids, and the group that is open. */
  function whole(what: Step): Schemas['StepIn']['edit'] {
    const group = within.value ? { within: within.value } : {}
    return { seed: newSeed(), ...group, ...what } as Schemas['StepIn']['edit']
  }

  /** `refused` may take a refusal on itself by returning true; otherwise it is shown as a note. */
  function edit(what: Step, refused?: (problem: Problem) => boolean): Promise<boolean> {
    const edit = whole(what)
    return send(
      (based_on) =>
        need(
          client.POST('/api/projects/{id}/edits', {
            params: { path: { id: id.value } },
            body: { based_on, edit },
          }),
        ),
      refused,
    )
  }

  /** Go to any step of the history, after all that was sent before. */
  function goTo(target: number): Promise<void> {
    const mine = line.then(async () => {
      try {
        const asked = client.POST('/api/projects/{id}/go', {
          params: { path: { id: id.value } },
          body: { based_on: revision.value, revision: target },
        })
        take((await need(asked)) as unknown as State)
      } catch (error) {
        if (error instanceof ServerError && error.status === 409) await catchUp()
        else notes.problem(error)
      }
    })
    line = mine
    return mine
  }

  function go(where: Move): Promise<boolean> {
    const told = where === 'undo' ? label.value : ''
    const done = send((based_on) =>
      need(
        client.POST(`/api/projects/{id}/${where}`, {
          params: { path: { id: id.value } },
          body: { based_on },
        }),
      ),
    )
    done.then((good) => {
      if (good) notes.told(where === 'undo' ? `Undone: ${told}` : `Done again: ${label.value}`)
    })
    return done
  }

  async function rename(to: string) {
    await need(
      client.PATCH('/api/projects/{id}', {
        params: { path: { id: id.value } },
        body: { name: to },
      }),
    )
    name.value = to
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
    edit,
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
