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
import type { Schemas } from '@/api/client'
import { useScreen } from '@/player/inject'
import { useHand } from '@/stores/hand'
import { useKit, type Preset } from '@/stores/kit'
import { useDrawing } from '@/stores/drawing'
import { useLayering } from '@/stores/layering'
import { useLibrary } from '@/stores/library'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { tickOf } from '@/time'

type Kept = { copies: Schemas['Copied'][]; width: number; height: number }

const project = useProject()
const hand = useHand()
const kit = useKit()
const notes = useNotes()
const layering = useLayering()
const drawing = useDrawing()
const library = useLibrary()
const { player } = useScreen()
const file = ref<HTMLInputElement | null>(null)
const at = computed(() => tickOf(player.frame.value, project.rate))

async function add(layer: string) {
  const done = await hand.bring({ kind: 'add_layer', layer, at: at.value })
  if (!done) return
  layering.part = layer === 'adjustment' ? 'effects' : 'content'
  layering.fill = ''
  drawing.tool = layer === 'path' ? 'pen' : ''
}

function byHand() {
  layering.part = 'content'
  drawing.tool = 'freehand'
}

async function bringIn(event: Event) {
  const field = event.target as HTMLInputElement
  for (const drawing of field.files ?? []) {
    try {
      const { clip, remarks } = await kit.readDrawing(drawing)
      await hand.bring({ kind: 'place', clip: clip as never, mode: 'above', at: at.value })
      for (const remark of remarks ?? []) notes.told(remark)
    } catch (error) {
      notes.problem(error)
    }
  }
  field.value = ''
}

/** A kept element, fitted from the canvas it was made on to this one. */
async function paste(element: Preset) {
  const { copies, width, height } = element.content as unknown as Kept
  await hand.bring({ kind: 'paste', at: at.value, copies, made_on: { width, height } })
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
    <template #button-content
      ><IconPlus aria-hidden="true" /> {{ $t('layer.addMenu.layer') }}</template
    >
    <BDropdownItemButton
      v-for="one in kit.layer?.fresh"
      :key="one.name"
      :title="one.help"
      :data-test="`add-${one.name}`"
      @click="add(one.name)"
    >
      {{ one.title }}
    </BDropdownItemButton>
    <BDropdownDivider />
    <BDropdownItemButton
      :title="$t('layer.addMenu.drawnWithAFingerAnd')"
      data-test="add-freehand"
      @click="byHand"
    >
      {{ $t('layer.addMenu.lineByHand') }}
    </BDropdownItemButton>
    <BDropdownItemButton
      :title="$t('layer.addMenu.thePathsOfAnSvg')"
      data-test="add-drawing"
      @click="file?.click()"
    >
      {{ $t('layer.addMenu.drawingSvg') }}
    </BDropdownItemButton>
    <template v-if="kit.elements.length">
      <BDropdownHeader>{{ $t('layer.addMenu.fromTheKit') }}</BDropdownHeader>
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
    :aria-label="$t('layer.addMenu.drawingsToBringIn')"
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
