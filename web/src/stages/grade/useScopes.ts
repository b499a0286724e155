import { createSharedComposable, useIntervalFn, useLocalStorage } from '@vueuse/core'
import { computed, onScopeDispose, shallowRef, watch } from 'vue'
import { usePhone } from '@/look/phone'
import { useScreen } from '@/player/inject'
import type { Measured, ScopesWanted } from '@/player/measured'
import { fetchStill } from '@/player/source'
import { useGrading } from '@/stores/grading'
import { useProject } from '@/stores/project'
import { MOST_SCOPES, SCOPES, type ScopeKind } from './scopes'

/** Pixels of the longer side that are measured while it plays, and how often. */
const PLAYING_SIDE = 480
const EVERY_MS = 60

let lanes = 0

/** Which scopes are shown, and what they show: with every still, and at intervals while playing. */
export const useScopes = createSharedComposable(() => {
  const project = useProject()
  const grading = useGrading()
  const { player } = useScreen()
  const shown = useLocalStorage<ScopeKind[]>('velvet-kite.scopes', ['luma', 'vectors', 'histogram'])
  const running = shallowRef<Measured | null>(null)
  /** On a phone there is room for the one that was chosen last. */
  const { phone: onlyOne } = usePhone()
  const visible = computed(() => (onlyOne.value ? shown.value.slice(-1) : shown.value))
  const measured = computed(() => (player.playing.value ? running.value : player.measured.value))

  const wanted = computed<ScopesWanted>(() => ({
    scopes: [...new Set(SCOPES.filter(({ id }) => visible.value.includes(id)).map((s) => s.array))],
    box: grading.box ?? [0, 0, 1, 1],
    marks: grading.marks,
    deep: grading.deep,
  }))

  function toggle(kind: ScopeKind) {
    if (onlyOne.value) {
      shown.value = [...shown.value.filter((one) => one !== kind), kind].slice(-MOST_SCOPES)
    } else if (shown.value.includes(kind)) {
      if (shown.value.length > 1) shown.value = shown.value.filter((one) => one !== kind)
    } else {
      shown.value = [...shown.value, kind].slice(-MOST_SCOPES)
    }
  }

  watch(
    () => [wanted.value, grading.matte ? grading.zone : ''] as const,
    ([scopes, matte]) => player.ask({ scopes, matte }),
    { immediate: true },
  )
  onScopeDispose(() => player.ask({}))

  const lane = `scopes-${Date.now()}-${++lanes}`
  const closing = new AbortController()
  let turn = 0
  let asking = false

  async function follow() {
    if (!player.playing.value || asking || !project.document) return
    asking = true
    try {
      const source = { ...project.source, frames: project.frames }
      const ask = { longSide: PLAYING_SIDE, lane, turn: ++turn, signal: closing.signal }
      const scopes = { ...wanted.value, marks: false, deep: false }
      const found = await fetchStill(source, player.shown.value, { ...ask, scopes })
      if (found.measured) running.value = found.measured
    } catch {
      // The next one comes in a moment; the player itself tells of what is wrong.
    } finally {
      asking = false
    }
  }
  useIntervalFn(follow, EVERY_MS)
  onScopeDispose(() => closing.abort())

  return { visible, measured, toggle }
})
