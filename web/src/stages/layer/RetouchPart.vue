<script setup lang="ts">
/** Mending the picture of a take: tools to paint with, the strokes that were painted. */
import { BButton } from 'bootstrap-vue-next'
import { computed, inject, nextTick, onScopeDispose } from 'vue'
import type { RetouchedClip } from '@/api/types'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import ControlFields from '@/controls/ControlFields.vue'
import PartRows from '@/controls/PartRows.vue'
import SwitchField from '@/controls/SwitchField.vue'
import ToolLine from '@/controls/ToolLine.vue'
import type { Layer } from '@/inhand/useLayer'
import { usePhone } from '@/look/phone'
import { useDrawing } from '@/stores/drawing'
import { useKit } from '@/stores/kit'
import { useRetouching, type RetouchTool } from '@/stores/retouching'
import { t } from '@/texts'
import { bring, TRAY } from '@/tray/tray'
import TrayItem from '@/tray/TrayItem.vue'
import { takesFrom, TOOLS } from './retouch'
import StrokePart from './StrokePart.vue'
import { useRetouch } from './useRetouch'

const props = defineProps<{ layer: Layer; clip: RetouchedClip }>()
const kit = useKit()
const drawing = useDrawing()
const store = useRetouching()
const { phone } = usePhone()
const { strokes, stroke, tool, brush, setBrush, controlsOf } = useRetouch(() => props.clip)

const painting = computed(() => drawing.tool === 'retouch' || drawing.tool === 'source')
const controls = computed(() => controlsOf(tool.value.kind))
const shown = computed(() => props.clip.retouched !== false)

const tray = inject(TRAY, null)
const SIZE = t('words.width')
async function take(id: RetouchTool) {
  const again = painting.value && store.tool === id
  store.tool = id
  drawing.tool = again ? '' : 'retouch'
  store.taken = ''
  if (again || !phone.value) return
  await nextTick()
  bring(tray, SIZE)
}
onScopeDispose(() => {
  if (painting.value) drawing.tool = ''
})

/** The stroke whose row is open; to open one ends painting. */
const open = computed({
  get: () => (painting.value ? '' : store.taken),
  set: (id) => {
    store.taken = id
    drawing.tool = ''
  },
})
const MOVES = [
  { id: 1, name: t('layer.retouchPart.goesOn'), help: t('layer.retouchPart.goesOnHelp') },
  { id: 0, name: t('layer.retouchPart.stays'), help: t('layer.retouchPart.staysHelp') },
]
</script>

<template>
  <fieldset class="retouch" :disabled="layer.locked.value">
    <TrayItem :name="$t('layer.retouchPart.tools')" :told="painting ? tool.name : ''">
      <div class="tools" role="group" :aria-label="$t('layer.retouchPart.tools')">
        <BButton
          v-for="one in TOOLS"
          :key="one.id"
          size="sm"
          variant="secondary"
          :aria-pressed="painting && store.tool === one.id"
          :title="one.help"
          :data-test="`retouch-${one.id}`"
          @click="take(one.id)"
        >
          {{ one.name }}
        </BButton>
        <BButton
          v-if="painting"
          size="sm"
          variant="primary"
          data-test="retouch-done"
          @click="drawing.tool = ''"
        >
          {{ $t('layer.retouchPart.done') }}
        </BButton>
      </div>
      <p class="tiny quiet">{{ painting ? tool.help : $t('layer.retouchPart.whatItDoes') }}</p>
    </TrayItem>
    <TrayItem
      v-if="painting && takesFrom(tool.kind)"
      :name="$t('layer.retouchPart.source')"
      :told="store.source ? $t('layer.retouchPart.picked') : $t('layer.retouchPart.byItself')"
    >
      <ToolLine :name="$t('layer.retouchPart.source')">
        <BButton
          size="sm"
          variant="secondary"
          :aria-pressed="drawing.tool === 'source'"
          data-test="pick-source"
          @click="drawing.tool = drawing.tool === 'source' ? 'retouch' : 'source'"
        >
          {{ $t('layer.retouchPart.pick') }}
        </BButton>
        <template v-if="store.source">
          <BButton size="sm" variant="secondary" data-test="own-source" @click="store.pick(null)">
            {{ $t('layer.retouchPart.byItself') }}
          </BButton>
          <ChoiceGroup
            :label="$t('layer.retouchPart.howItMoves')"
            :choices="MOVES"
            :taken="store.goesOn ? 1 : 0"
            @take="store.goesOn = Boolean($event)"
          />
        </template>
      </ToolLine>
      <p v-if="!store.source" class="tiny quiet">{{ $t('layer.retouchPart.byItselfHelp') }}</p>
    </TrayItem>
    <ControlFields
      v-if="painting"
      :key="tool.id"
      :controls="controls"
      :values="brush"
      :local="0"
      @trying="setBrush($event)"
      @set="setBrush($event)"
    />
    <TrayItem
      v-if="strokes.length"
      :name="$t('layer.retouchPart.strokes')"
      :told="String(strokes.length)"
    >
      <SwitchField
        :on="shown"
        data-test="retouched"
        @update:on="layer.setWhole({ retouched: $event })"
      >
        {{ $t('layer.retouchPart.shown') }}
      </SwitchField>
      <PartRows
        v-model:open="open"
        :parts="strokes"
        :kinds="kit.layer?.strokes ?? []"
        test="stroke-row"
        @switch="(id, on) => layer.setPart('strokes', id, { on })"
        @order="(id, to) => layer.orderPart('strokes', id, to)"
        @remove="layer.removePart('strokes', $event)"
      >
        <template #default="{ part }">
          <StrokePart :layer="layer" :clip="clip" :stroke="part" />
        </template>
      </PartRows>
    </TrayItem>
    <StrokePart
      v-if="phone && stroke && !painting"
      :key="stroke.id"
      :layer="layer"
      :clip="clip"
      :stroke="stroke"
    />
  </fieldset>
</template>

<style scoped>
.retouch {
  display: grid;
  gap: 6px;
  min-width: 0;
  align-content: start;
}
/* All of them are seen at once, on a phone too. */
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
p {
  margin: 0;
}
</style>
