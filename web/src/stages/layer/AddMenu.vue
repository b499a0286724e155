<script setup lang="ts">
/** Adds a layer that is not made of a take: text, shape, colour, drawing, or an element of the Kit. */
import {
  BDropdown,
  BDropdownDivider,
  BDropdownHeader,
  BDropdownItemButton,
} from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import IconPlus from '~icons/tabler/plus'
import type { Step } from '@/api/types'
import { useScreen } from '@/player/inject'
import { useHand } from '@/stores/hand'
import { useKit, type Preset } from '@/stores/kit'
import { useLayering } from '@/stores/layering'
import { useLibrary } from '@/stores/library'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { tickOf } from '@/time'
import { elementStep, FRESH, placeStep, type Fresh } from './adding'

const project = useProject()
const hand = useHand()
const kit = useKit()
const notes = useNotes()
const layering = useLayering()
const library = useLibrary()
const { player } = useScreen()
const file = ref<HTMLInputElement | null>(null)
const canvas = computed(() => project.document?.canvas ?? { width: 1080, height: 1920 })
const at = computed(() => tickOf(player.frame.value, project.rate))

async function place(step: Step) {
  const { good: done, made } = await project.make(step)
  const fresh = made.filter((id) => project.findClip(id))
  if (fresh.length) hand.takeAll(fresh)
  return done
}

async function add(one: Fresh) {
  const done = await place(placeStep(one.clip, at.value, canvas.value))
  if (!done) return
  layering.part = one.id === 'adjustment' ? 'effects' : 'content'
  layering.fill = ''
  layering.tool = one.id === 'path' ? 'pen' : ''
}

function byHand() {
  layering.part = 'content'
  layering.tool = 'freehand'
}

async function bringIn(event: Event) {
  const field = event.target as HTMLInputElement
  for (const drawing of field.files ?? []) {
    try {
      const { clip } = await kit.readDrawing(drawing)
      await place({ kind: 'place', clip: clip as never, mode: 'above', at: at.value })
    } catch (error) {
      notes.problem(error)
    }
  }
  field.value = ''
}

async function paste(element: Preset) {
  await place(elementStep(element.content, at.value, canvas.value))
  await library.refresh()
}
</script>

<template>
  <BDropdown
    size="sm"
    variant="primary"
    no-caret
    teleport-to="body"
    strategy="fixed"
    menu-class="tall-menu"
    data-test="add-layer"
    lazy
  >
    <template #button-content><IconPlus aria-hidden="true" /> Layer</template>
    <BDropdownItemButton
      v-for="one in FRESH"
      :key="one.id"
      :title="one.help"
      :data-test="`add-${one.id}`"
      @click="add(one)"
    >
      {{ one.name }}
    </BDropdownItemButton>
    <BDropdownDivider />
    <BDropdownItemButton
      title="Drawn with a finger and smoothed"
      data-test="add-freehand"
      @click="byHand"
    >
      Line by hand
    </BDropdownItemButton>
    <BDropdownItemButton
      title="The paths of an SVG file, editable"
      data-test="add-drawing"
      @click="file?.click()"
    >
      Drawing (SVG)
    </BDropdownItemButton>
    <template v-if="kit.elements.length">
      <BDropdownHeader>From the Kit</BDropdownHeader>
      <BDropdownItemButton
        v-for="one in kit.elements"
        :key="one.id"
        class="element"
        :data-test="`element-${one.name}`"
        @click="paste(one)"
      >
        <img :src="`/api/kit/presets/${one.id}/picture.jpg`" alt="" /> {{ one.name }}
      </BDropdownItemButton>
    </template>
  </BDropdown>
  <input
    ref="file"
    type="file"
    accept=".svg,image/svg+xml"
    multiple
    hidden
    data-test="drawing-file"
    @change="bringIn"
  />
</template>

<style scoped>
.element img {
  height: 34px;
  border-radius: 5px 5px 2px 5px;
  margin-right: 6px;
}
</style>
