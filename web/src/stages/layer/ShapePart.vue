<script setup lang="ts">
/** A shape: its form, its fill, its stroke; drawn point by point or by hand. */
import { BButton } from 'bootstrap-vue-next'
import { computed, watch } from 'vue'
import IconHand from '~icons/tabler/scribble'
import IconPen from '~icons/tabler/vector-bezier-2'
import type { ShapeClip } from '@/api/types'
import ChoiceRow from '@/controls/ChoiceRow.vue'
import ControlFields from '@/controls/ControlFields.vue'
import ValueField from '@/controls/ValueField.vue'
import { useKit } from '@/stores/kit'
import { useDrawing } from '@/stores/drawing'
import { useLayering } from '@/stores/layering'
import PointBench from '@/controls/PointBench.vue'
import TrayItem from '@/tray/TrayItem.vue'
import DashPart from './DashPart.vue'
import FillEditor from './FillEditor.vue'
import type { Layer } from '@/inhand/useLayer'

const props = defineProps<{ layer: Layer }>()
const kit = useKit()
const layering = useLayering()
const drawing = useDrawing()

const clip = computed(() => props.layer.clip.value as ShapeClip | null)
const form = computed(() => clip.value?.form)
const stroke = computed(() => clip.value?.stroke as Record<string, unknown> | null | undefined)
const isPath = computed(() => form.value?.kind === 'path')

const CAPS = ['butt', 'round', 'square'] as const
const JOINS = ['miter', 'round', 'bevel'] as const
const named = (prefix: string, values: Record<string, unknown>) =>
  Object.fromEntries(Object.entries(values).map(([name, value]) => [`${prefix}/${name}`, value]))

// The pen has the picture; ends of a fill are handled there otherwise.
watch(
  () => drawing.tool,
  (tool) => {
    if (tool === 'pen') layering.fill = ''
  },
)

function toggleStroke() {
  const fresh = { fill: { kind: 'plain', colour: '#fff4e2' }, width: 12 }
  props.layer.setWhole({ stroke: stroke.value ? null : fresh })
}
</script>

<template>
  <fieldset v-if="clip && form" class="shape" :disabled="layer.locked.value">
    <template v-if="isPath">
      <TrayItem :name="$t('layer.shapePart.points')">
        <PointBench
          :keyed="layer.keyed('form/contours')"
          @key="layer.toggleKey('form/contours', [])"
        >
          <BButton
            size="sm"
            variant="secondary"
            :aria-pressed="drawing.tool === 'freehand'"
            data-test="freehand"
            @click="drawing.put('freehand')"
          >
            <IconHand aria-hidden="true" /> {{ $t('layer.shapePart.byHand') }}
          </BButton>
        </PointBench>
      </TrayItem>
      <ValueField
        v-if="drawing.tool === 'freehand'"
        :label="$t('layer.shapePart.smooth')"
        :help="$t('layer.shapePart.howFarTheLineMay')"
        :value="layering.smoothness"
        :low="1"
        :high="40"
        :step="1"
        unit="px"
        @trying="layering.smoothness = $event"
        @set="layering.smoothness = $event"
      />
    </template>
    <template v-else>
      <ControlFields
        :controls="kit.layer?.forms[form.kind] ?? []"
        :values="form as unknown as Record<string, unknown>"
        :local="layer.local.value"
        @trying="layer.tryWhole(named('form', $event))"
        @set="layer.setWhole(named('form', $event))"
      />
      <TrayItem :name="$t('layer.shapePart.points')">
        <BButton
          size="sm"
          variant="secondary"
          :title="$t('layer.shapePart.itsPointsCanThenBe')"
          data-test="to-path"
          @click="layer.send({ kind: 'to_path', clip: clip.id ?? '' })"
        >
          <IconPen aria-hidden="true" /> {{ $t('layer.shapePart.turnIntoAPenPath') }}
        </BButton>
      </TrayItem>
    </template>
    <FillEditor
      v-if="form.kind !== 'line'"
      :layer="layer"
      :label="$t('layer.shapePart.fill')"
      path="fill"
      optional
    />
    <TrayItem :name="$t('layer.shapePart.stroke')" :told="stroke ? '' : $t('words.no')">
      <div class="line">
        <strong class="name">{{ $t('layer.shapePart.stroke') }}</strong>
        <BButton
          size="sm"
          variant="secondary"
          :aria-pressed="Boolean(stroke)"
          data-test="stroke"
          @click="toggleStroke"
        >
          {{ stroke ? $t('layer.shapePart.takeItOff') : $t('layer.shapePart.addOne') }}
        </BButton>
      </div>
    </TrayItem>
    <template v-if="stroke">
      <FillEditor :layer="layer" :label="$t('layer.shapePart.itsFill')" path="stroke/fill" />
      <ControlFields
        :controls="kit.layer?.stroke ?? []"
        :values="stroke"
        :local="layer.local.value"
        @trying="layer.tryWhole(named('stroke', $event))"
        @set="layer.setWhole(named('stroke', $event))"
      />
      <TrayItem :name="$t('layer.shapePart.endsCornersDashes')">
        <ChoiceRow
          :name="$t('layer.shapePart.ends')"
          :label="$t('layer.shapePart.endsOfTheStroke')"
          :choices="CAPS.map((id) => ({ id, name: id }))"
          :taken="clip.stroke?.cap ?? 'round'"
          @take="layer.setWhole({ 'stroke/cap': $event })"
        />
        <ChoiceRow
          :name="$t('layer.shapePart.corners')"
          :label="$t('layer.shapePart.cornersOfTheStroke')"
          :choices="JOINS.map((id) => ({ id, name: id }))"
          :taken="clip.stroke?.join ?? 'round'"
          @take="layer.setWhole({ 'stroke/join': $event })"
        />
      </TrayItem>
      <DashPart :layer="layer" />
    </template>
  </fieldset>
</template>

<style scoped>
.shape {
  display: grid;
  gap: 4px;
  min-width: 0;
  justify-items: stretch;
}
.shape > .btn {
  justify-self: start;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
  min-height: 38px;
}
.name {
  min-width: 74px;
}
p {
  margin: 0;
}
</style>
