<script setup lang="ts">
/** What makes up the frame at the playhead, from the front to the back. */
import { BDropdown, BDropdownItemButton, BModal } from 'bootstrap-vue-next'
import { computed, ref, watch } from 'vue'
import IconDots from '~icons/tabler/dots-vertical'
import IconEye from '~icons/tabler/eye'
import IconEyeOff from '~icons/tabler/eye-off'
import IconGrip from '~icons/tabler/grip-vertical'
import IconLock from '~icons/tabler/lock'
import IconLockOpen from '~icons/tabler/lock-open'
import IconSolo from '~icons/tabler/focus-2'
import { isPictured, type Clip, type PicturedClip, type Track } from '@/api/types'
import { useScreen } from '@/player/inject'
import { useHand } from '@/stores/hand'
import { useKit } from '@/stores/kit'
import { useNotes } from '@/stores/notes'
import { endOf, startOf, useProject } from '@/stores/project'
import { KIND_ICONS, KIND_NAMES } from '@/timeline/kinds'
import { tickOf } from '@/time'
import AddMenu from './AddMenu.vue'

interface Row {
  clip: PicturedClip
  track: Track
}

const project = useProject()
const hand = useHand()
const kit = useKit()
const notes = useNotes()
const { player } = useScreen()

const at = computed(() => tickOf(player.frame.value, project.rate))
const rows = computed<Row[]>(() =>
  [...project.tracks]
    .reverse()
    .filter((track) => track.kind !== 'sound')
    .flatMap((track) => {
      const clip = track.clips.find((one) => startOf(one) <= at.value && at.value < endOf(one))
      return clip && isPictured(clip) ? [{ clip, track }] : []
    }),
)

/** Whether only some tracks are shown. */
const alone = computed(() => project.tracks.some((track) => track.kind !== 'sound' && track.solo))

function thumb({ clip }: Row): string {
  const query = new URLSearchParams({ ...project.look, frame: String(player.frame.value) })
  return `/api/projects/${project.id}/revisions/${project.seen}/layers/${clip.id}.jpg?${query}`
}

const nameOf = (clip: Clip) => clip.name || KIND_NAMES[clip.kind]

function signs(clip: PicturedClip): string {
  const effects = clip.effects?.length ?? 0
  const masks = clip.masks?.length ?? 0
  return [
    KIND_NAMES[clip.kind],
    clip.key ? 'key' : '',
    clip.grade ? 'graded' : '',
    masks ? `${masks} mask${masks > 1 ? 's' : ''}` : '',
    effects ? `${effects} effect${effects > 1 ? 's' : ''}` : '',
    clip.clipped ? 'clipped' : '',
  ]
    .filter(Boolean)
    .join(' · ')
}

function blendOf(clip: PicturedClip): string {
  const found = kit.layer?.blends.find((one) => one.name === clip.blend)
  return found?.group === 'holdout' ? 'holdout' : (found?.title ?? clip.blend ?? 'normal')
}

function opacityOf(clip: PicturedClip): string {
  return typeof clip.opacity === 'number' ? `${Math.round(clip.opacity * 100)}` : 'keys'
}

function setTrack(track: Track, values: Record<string, unknown>) {
  project.edit({ kind: 'set_track', track: track.id ?? '', ...values })
}

// Reordering: a row is taken by its grip and dropped between others.
const dragged = ref<number | null>(null)
const target = ref<number | null>(null)
const list = ref<HTMLElement | null>(null)

// What is in hand is always in sight.
watch(
  () => hand.ids.join(),
  () => list.value?.querySelector('.here')?.scrollIntoView({ block: 'nearest' }),
  { flush: 'post' },
)

function grab(event: PointerEvent, index: number) {
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  dragged.value = target.value = index
}

function drag(event: PointerEvent) {
  if (dragged.value === null || !list.value) return
  const boxes = [...list.value.children].map((row) => row.getBoundingClientRect())
  const over = boxes.findIndex((box) => event.clientY < box.top + box.height)
  target.value = over < 0 ? boxes.length - 1 : over
}

function drop() {
  const [from, to] = [dragged.value, target.value]
  dragged.value = target.value = null
  if (from !== null && to !== null && from !== to) moveTo(from, to)
}

function moveTo(from: number, to: number) {
  const [mine, other] = [rows.value[from], rows.value[to]]
  if (!mine || !other) return
  project.edit({
    kind: 'order_layer',
    clip: mine.clip.id ?? '',
    other: other.clip.id ?? '',
    where: to < from ? 'in_front' : 'behind',
  })
}

function byKey(event: KeyboardEvent, index: number) {
  const by = { ArrowUp: -1, ArrowDown: 1 }[event.key]
  if (!by || index + by < 0 || index + by >= rows.value.length) return
  event.preventDefault()
  event.stopPropagation()
  moveTo(index, index + by)
}

const naming = ref<Row | null>(null)
const keeping = ref<Row[] | null>(null)
const name = ref('')

function askName(row: Row) {
  name.value = row.clip.name ?? ''
  naming.value = row
}

function setName() {
  const values = { name: name.value.trim() }
  if (naming.value) project.edit({ kind: 'adjust', clips: [naming.value.clip.id ?? ''], values })
}

function askKeep(row: Row) {
  const held = rows.value.filter(({ clip }) => hand.ids.includes(clip.id ?? ''))
  keeping.value = held.some(({ clip }) => clip.id === row.clip.id) ? held : [row]
  name.value = nameOf(row.clip)
}

async function keep() {
  const kept = keeping.value ?? []
  const canvas = project.document?.canvas
  const copies = kept.map(({ clip, track }) => ({
    clip,
    lane: project.tracks.findIndex((one) => one.id === track.id),
    of: 'picture',
  }))
  const content = { copies, width: canvas?.width ?? 1080, height: canvas?.height ?? 1920 }
  try {
    await kit.keepPreset(name.value.trim() || 'Element', content, 'element')
    notes.told(`“${name.value}” is in the Kit.`)
  } catch (error) {
    notes.problem(error)
  }
}

const clipStep = (kind: 'raise' | 'lower', { clip }: Row) =>
  project.edit({ kind, clip: clip.id ?? '' })
const copyAbove = ({ clip }: Row) => project.edit({ kind: 'copy_above', clips: [clip.id ?? ''] })
</script>

<template>
  <section class="panel layers" aria-label="Layers of this frame">
    <header>
      <strong>This frame</strong>
      <span class="tiny quiet">front to back</span>
      <span class="grow" />
      <AddMenu />
    </header>
    <ol v-if="rows.length" ref="list" class="rows" data-test="layers">
      <li
        v-for="(row, index) in rows"
        :key="row.clip.id"
        :class="{
          here: hand.ids.includes(row.clip.id ?? ''),
          away: row.track.hidden || (alone && !row.track.solo),
          lifted: dragged === index,
          before: target === index && dragged !== null && target < dragged,
          after: target === index && dragged !== null && target > dragged,
        }"
        data-test="layer-row"
      >
        <button
          class="grip"
          :aria-label="`Order of ${nameOf(row.clip)}: drag, or arrow up and down`"
          title="Drag to put it in front or behind"
          @pointerdown="grab($event, index)"
          @pointermove="drag"
          @pointerup="drop"
          @pointercancel="dragged = target = null"
          @keydown="byKey($event, index)"
        >
          <IconGrip aria-hidden="true" />
        </button>
        <button
          class="what"
          :aria-pressed="hand.ids.includes(row.clip.id ?? '')"
          :data-test="`layer-${nameOf(row.clip)}`"
          @click="hand.take(row.clip.id ?? '')"
        >
          <img v-if="row.clip.kind !== 'adjustment'" :src="thumb(row)" alt="" loading="lazy" />
          <span v-else class="glyph"
            ><component :is="KIND_ICONS[row.clip.kind]" aria-hidden="true"
          /></span>
          <span class="words">
            <span class="name clip-text">{{ nameOf(row.clip) }}</span>
            <span class="tiny quiet clip-text">{{ signs(row.clip) }}</span>
          </span>
          <span class="blend tiny clip-text">{{ blendOf(row.clip) }}</span>
          <span class="opacity tiny">{{ opacityOf(row.clip) }}</span>
        </button>
        <button
          class="btn btn-bare small"
          role="switch"
          :aria-checked="!row.track.hidden"
          :aria-label="`Show the track ${row.track.name}`"
          :title="row.track.hidden ? 'Show its track' : 'Hide its track'"
          @click="setTrack(row.track, { hidden: !row.track.hidden })"
        >
          <IconEyeOff v-if="row.track.hidden" aria-hidden="true" />
          <IconEye v-else aria-hidden="true" />
        </button>
        <BDropdown
          :variant="null"
          no-caret
          size="sm"
          toggle-class="btn-bare small"
          teleport-to="body"
          strategy="fixed"
        >
          <template #button-content>
            <IconDots :aria-label="`What to do with ${nameOf(row.clip)}`" />
          </template>
          <BDropdownItemButton @click="askName(row)">Rename</BDropdownItemButton>
          <BDropdownItemButton data-test="copy-above" @click="copyAbove(row)">
            Copy in front
          </BDropdownItemButton>
          <BDropdownItemButton v-if="row.track.kind === 'main'" @click="clipStep('raise', row)">
            Raise
          </BDropdownItemButton>
          <BDropdownItemButton v-else @click="clipStep('lower', row)">Lower</BDropdownItemButton>
          <BDropdownItemButton @click="setTrack(row.track, { solo: !row.track.solo })">
            <IconSolo aria-hidden="true" />
            {{ row.track.solo ? 'Show the others too' : 'Show only its track' }}
          </BDropdownItemButton>
          <BDropdownItemButton @click="setTrack(row.track, { locked: !row.track.locked })">
            <component :is="row.track.locked ? IconLockOpen : IconLock" aria-hidden="true" />
            {{ row.track.locked ? 'Unlock its track' : 'Lock its track' }}
          </BDropdownItemButton>
          <BDropdownItemButton data-test="keep-element" @click="askKeep(row)">
            Keep in the Kit
          </BDropdownItemButton>
        </BDropdown>
      </li>
    </ol>
    <div v-else class="empty">
      <strong>Nothing at the playhead</strong>
      <span>Move it over a clip, or add a layer here.</span>
    </div>
    <BModal
      :model-value="Boolean(naming)"
      title="Name of the layer"
      ok-title="Keep"
      cancel-title="Back"
      cancel-variant="secondary"
      @ok="setName"
      @hidden="naming = null"
    >
      <input v-model="name" class="form-control" maxlength="200" aria-label="Name" />
    </BModal>
    <BModal
      :model-value="Boolean(keeping)"
      title="Keep in the Kit"
      ok-title="Keep"
      cancel-title="Back"
      cancel-variant="secondary"
      @ok="keep"
      @hidden="keeping = null"
    >
      <label class="form-label" for="element-name">
        {{ keeping?.length === 1 ? 'This layer' : `These ${keeping?.length} layers` }} can then be
        added to any project, still editable.
      </label>
      <input id="element-name" v-model="name" class="form-control" maxlength="200" />
    </BModal>
  </section>
</template>

<style scoped>
.layers {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  gap: 6px;
  padding: 10px;
}
header {
  display: flex;
  align-items: center;
  gap: 8px;
}
.grow {
  flex: 1;
}
.rows {
  list-style: none;
  margin: 0;
  padding: 2px;
  overflow-y: auto;
  scrollbar-width: thin;
  display: grid;
  gap: 5px;
  align-content: start;
}
li {
  display: flex;
  align-items: center;
  background: var(--raised);
  border-radius: var(--fold);
  min-width: 0;
}
.here {
  outline: 2px solid var(--accent);
  background: #3d2a35;
}
.lifted {
  opacity: 0.5;
}
.before {
  box-shadow: 0 -3px 0 var(--accent);
}
.after {
  box-shadow: 0 3px 0 var(--accent);
}
.away .what {
  opacity: 0.45;
}
.grip {
  border: 0;
  background: none;
  color: var(--quiet);
  padding: 0;
  width: 24px;
  align-self: stretch;
  cursor: grab;
  touch-action: none;
}
.what {
  flex: 1;
  min-width: 0;
  display: grid;
  grid-template-columns: 38px minmax(0, 1fr) minmax(0, max-content) 30px;
  align-items: center;
  gap: 8px;
  border: 0;
  background: none;
  color: var(--text);
  text-align: left;
  padding: 4px 0;
  min-height: 50px;
}
.what img,
.glyph {
  width: 38px;
  height: 42px;
  object-fit: cover;
  border-radius: 7px 7px 2px 7px;
  background: var(--neutral);
}
.glyph {
  display: grid;
  place-items: center;
  background: var(--adjustment);
}
.words {
  display: grid;
  min-width: 0;
}
.name {
  font-weight: 600;
}
.blend {
  color: var(--soft);
  max-width: 78px;
}
.opacity {
  text-align: right;
  font-weight: 600;
}
.small {
  min-width: 34px;
  padding: 0 4px;
}
@media (pointer: coarse) {
  .small,
  .grip {
    min-width: 40px;
    min-height: 44px;
  }
}
</style>
