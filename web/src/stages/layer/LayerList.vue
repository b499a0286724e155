<script setup lang="ts">
/** What makes up the frame at the playhead, from the front to the back. */
import { computed, ref, watch } from 'vue'
import { isPictured, type PicturedClip, type Track } from '@/api/types'
import { usePhone } from '@/look/phone'
import { useScreen } from '@/player/inject'
import { useGrip } from '@/controls/useGrip'
import { useHand } from '@/stores/hand'
import { useKit } from '@/stores/kit'
import { useNotes } from '@/stores/notes'
import { endOf, startOf, useProject } from '@/stores/project'
import { KIND_NAMES } from '@/api/kinds'
import { t } from '@/texts'
import { tickOf } from '@/time'
import AddMenu from './AddMenu.vue'
import LayerRow from './LayerRow.vue'
import { useLayerPictures } from './useLayerPictures'
import NameDialog from '@/controls/NameDialog.vue'

interface Row {
  clip: PicturedClip
  track: Track
}

const project = useProject()
const hand = useHand()
const kit = useKit()
const notes = useNotes()
const { player } = useScreen()
const { phone } = usePhone()
const pictures = useLayerPictures()
const shape = computed(() => {
  const canvas = project.document?.canvas
  return canvas ? canvas.width / canvas.height : 1
})

const at = computed(() => tickOf(player.shown.value, project.rate))
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

// Reordering: a row is taken by its grip and dropped between others.
const target = ref<number | null>(null)
const list = ref<HTMLElement | null>(null)

// What is in hand is always in sight.
watch(
  () => hand.ids.join(),
  () => list.value?.querySelector('.here')?.scrollIntoView({ block: 'nearest' }),
  { flush: 'post' },
)

const grip = useGrip<number>({
  slop: 0,
  move({ event }) {
    const boxes = [...(list.value?.children ?? [])].map((row) => row.getBoundingClientRect())
    const y = Math.min(Math.max(event.clientY, boxes[0]?.top ?? 0), (boxes.at(-1)?.bottom ?? 1) - 1)
    const over = boxes.findIndex(
      (box) => y < box.top || (y < box.bottom && event.clientX < box.right),
    )
    target.value = over < 0 ? boxes.length - 1 : over
  },
  drop(_, from) {
    const to = target.value
    target.value = null
    if (to !== null && from !== to) moveTo(from, to)
  },
  cancel: () => (target.value = null),
})
const dragged = computed(() => grip.held.value?.what ?? null)

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
  const by = { ArrowUp: -1, ArrowDown: 1, ArrowLeft: -1, ArrowRight: 1 }[event.key]
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
  name.value = row.clip.name || KIND_NAMES[row.clip.kind]
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
    await kit.keepPreset(name.value.trim() || t('layer.layerList.element'), content, 'element')
    notes.told(t('layer.layerList.isInTheKit', { name: name.value }))
  } catch (error) {
    notes.problem(error)
  }
}
</script>

<template>
  <section class="panel layers" :aria-label="$t('layer.layerList.layersOfThisFrame')">
    <header>
      <strong>{{ $t('layer.layerList.thisFrame') }}</strong>
      <span class="tiny quiet">{{ $t('layer.layerList.frontToBack') }}</span>
      <span class="grow" />
      <AddMenu v-if="!phone" />
    </header>
    <ol v-if="rows.length" ref="list" class="rows" :style="{ '--shape': shape }" data-test="layers">
      <LayerRow
        v-for="(row, index) in rows"
        :key="row.clip.id"
        :picture="pictures[row.clip.id ?? '']"
        :clip="row.clip"
        :track="row.track"
        :away="row.track.hidden || (alone && !row.track.solo)"
        :class="{
          lifted: dragged === index,
          before: target === index && dragged !== null && target < dragged,
          after: target === index && dragged !== null && target > dragged,
        }"
        @grab="grip.down($event, index)"
        @nudge="byKey($event, index)"
        @rename="askName(row)"
        @keep="askKeep(row)"
      />
    </ol>
    <div v-else class="empty">
      <strong>{{ $t('layer.layerList.nothingAtThePlayhead') }}</strong>
      <span>{{ $t('layer.layerList.moveItOverAClip') }}</span>
    </div>
    <NameDialog
      v-model="name"
      :open="Boolean(naming)"
      :title="$t('layer.layerList.nameOfTheLayer')"
      @ok="setName"
      @hidden="naming = null"
    />
    <NameDialog
      v-model="name"
      :open="Boolean(keeping)"
      :title="$t('layer.layerList.keepInTheKit')"
      :label="$t('layer.layerList.canThenBeAddedTo', keeping?.length ?? 0)"
      @ok="keep"
      @hidden="keeping = null"
    />
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
.lifted {
  opacity: 0.5;
}
.before {
  box-shadow: 0 -3px 0 var(--accent);
}
.after {
  box-shadow: 0 3px 0 var(--accent);
}
.phone .layers {
  padding: 4px 0;
  grid-template-rows: minmax(0, 1fr);
}
.phone header {
  display: none;
}
.phone .rows {
  grid: minmax(0, 1fr) / none;
  grid-auto-flow: column;
  grid-auto-columns: 92px;
  overflow: auto hidden;
  scrollbar-width: none;
}
@container (height > 200px) {
  .phone .rows {
    grid: none;
    grid-auto-flow: row;
    grid-template-columns: repeat(auto-fill, minmax(104px, 1fr));
    align-content: start;
    overflow: hidden auto;
  }
}
.phone .before {
  box-shadow: -3px 0 0 var(--accent);
}
.phone .after {
  box-shadow: 3px 0 0 var(--accent);
}
</style>
