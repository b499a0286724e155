<script setup lang="ts">
/** Cutting something out: what is marked, its edge; a still's taken off as a layer, a video's found in all frames. */
import { BButton } from 'bootstrap-vue-next'
import { computed, onScopeDispose, ref, watch } from 'vue'
import type { StillClip, VideoClip } from '@/api/types'
import ControlFields from '@/controls/ControlFields.vue'
import NameDialog from '@/controls/NameDialog.vue'
import SwitchField from '@/controls/SwitchField.vue'
import ValueField from '@/controls/ValueField.vue'
import ToolLine from '@/controls/ToolLine.vue'
import type { Layer } from '@/inhand/useLayer'
import type { Spot } from '@/motion/quads'
import { useScreen } from '@/player/inject'
import { usePlacing } from '@/picture/usePlacing'
import { useDrawing } from '@/stores/drawing'
import { useHand } from '@/stores/hand'
import { useKit } from '@/stores/kit'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'
import CutoutThrough from './CutoutThrough.vue'
import { middleOfPoints } from './retouch'
import { useCutout } from './useCutout'

const props = defineProps<{ layer: Layer; clip: StillClip | VideoClip }>()
const kit = useKit()
const drawing = useDrawing()
const hand = useHand()
const project = useProject()
const { player } = useScreen()
const placing = usePlacing(player, ref(1))
const { cutout, strokes, around, persons, marked, takeLast, again, set, trying } = useCutout(
  props.layer,
  () => props.clip,
)
const told = computed(() => {
  if (strokes.value.length)
    return t('layer.cutoutPart.marked', { n: strokes.value.length }, strokes.value.length)
  if (persons.value.length) return t('layer.cutoutPart.person')
  return marked.value ? t('layer.cutoutPart.around') : undefined
})

const painting = computed(() => drawing.tool === 'cut')
const marking = computed(
  () => painting.value || ['around', 'person', 'hair'].includes(drawing.tool),
)
function paint(drop: boolean) {
  const same = painting.value && drawing.brush.erase === drop
  drawing.brush.erase = drop
  drawing.tool = same ? '' : 'cut'
}
/** While it is marked the rest is seen, too, so that it can be marked. */
const THIN = 0.35
watch(
  [marking, cutout],
  ([now]) => {
    if (now && cutout.value) trying({ rest: THIN })
    else props.layer.endTrial()
  },
  { immediate: true },
)
onScopeDispose(() => {
  if (marking.value) drawing.tool = ''
  props.layer.endTrial()
})

const pieces = computed(() => (props.clip.kind === 'still' ? (props.clip.taken_off ?? []) : []))
const name = ref('')
const naming = ref(false)
function ask() {
  name.value = t('layer.cutoutPart.name', { n: pieces.value.length + 1 })
  naming.value = true
}

/** It turns about the middle of what was marked. */
function pivot(): Spot {
  const painted = strokes.value
    .filter(({ drop }) => !drop)
    .flatMap(({ points }) => points as Spot[])
  const kept = painted.length ? painted : (around.value as Spot[])
  const height = placing.size.value?.height ?? 0
  if (!kept.length) return [0, 0]
  const [x, y] = middleOfPoints(kept)
  return [x * height, y * height]
}

async function takeOff() {
  drawing.tool = ''
  const { made } = await project.make({
    kind: 'take_off',
    clip: props.clip.id ?? '',
    name: name.value.trim() || t('layer.cutoutPart.name', { n: 1 }),
    pivot: pivot(),
  })
  const fresh = made.find((id) => project.findClip(id))
  if (fresh) hand.take(fresh)
}
async function gather() {
  const { made } = await project.make({ kind: 'gather_pieces', clip: props.clip.id ?? '' })
  const group = made.find((id) => project.findClip(id))
  if (group) hand.take(group)
}
</script>

<template>
  <fieldset class="cutout" :disabled="layer.locked.value">
    <TrayItem :name="$t('layer.cutoutPart.mark')" :told="told">
      <ToolLine :label="$t('layer.cutoutPart.mark')">
        <BButton
          size="sm"
          variant="secondary"
          :aria-pressed="drawing.tool === 'around'"
          data-test="cut-around"
          @click="drawing.put('around')"
        >
          {{ $t('layer.cutoutPart.around') }}
        </BButton>
        <BButton
          v-if="kit.layer?.persons"
          size="sm"
          variant="secondary"
          :aria-pressed="drawing.tool === 'person'"
          data-test="cut-person"
          @click="drawing.put('person')"
        >
          {{ $t('layer.cutoutPart.person') }}
        </BButton>
        <BButton
          size="sm"
          variant="secondary"
          :aria-pressed="painting && !drawing.brush.erase"
          data-test="cut-keep"
          @click="paint(false)"
        >
          {{ $t('layer.cutoutPart.keep') }}
        </BButton>
        <BButton
          size="sm"
          variant="secondary"
          :aria-pressed="painting && drawing.brush.erase"
          :disabled="!marked && !cutout"
          data-test="cut-drop"
          @click="paint(true)"
        >
          {{ $t('layer.cutoutPart.drop') }}
        </BButton>
        <BButton
          v-if="marked"
          size="sm"
          variant="secondary"
          :aria-pressed="drawing.tool === 'hair'"
          :title="$t('layer.cutoutPart.hairHelp')"
          data-test="cut-hair"
          @click="drawing.put('hair')"
        >
          {{ $t('layer.cutoutPart.hair') }}
        </BButton>
        <BButton v-if="marked" size="sm" variant="secondary" data-test="cut-back" @click="takeLast">
          {{ $t('layer.cutoutPart.takeLast') }}
        </BButton>
        <BButton v-if="cutout" size="sm" variant="secondary" data-test="cut-again" @click="again">
          {{ $t('layer.cutoutPart.again') }}
        </BButton>
      </ToolLine>
      <p class="tiny quiet">
        {{
          clip.kind === 'video'
            ? $t('layer.cutoutPart.whatItDoesMoving')
            : $t('layer.cutoutPart.whatItDoes')
        }}
      </p>
    </TrayItem>
    <CutoutThrough v-if="clip.kind === 'video' && cutout" :layer="layer" :clip="clip" />
    <ValueField
      :label="$t('layer.cutoutPart.brush')"
      :value="drawing.brush.width * 100"
      :low="0.5"
      :high="20"
      :step="0.5"
      :digits="1"
      unit="%"
      @trying="drawing.brush.width = $event / 100"
      @set="drawing.brush.width = $event / 100"
    />
    <template v-if="cutout">
      <TrayItem v-if="marked && clip.kind === 'still'" :name="$t('layer.cutoutPart.pieces')">
        <ToolLine>
          <BButton
            size="sm"
            variant="primary"
            data-test="take-off"
            :title="$t('layer.cutoutPart.takeOffHelp')"
            @click="ask"
          >
            {{ $t('layer.cutoutPart.takeOff') }}
          </BButton>
        </ToolLine>
        <p class="tiny quiet">{{ $t('layer.cutoutPart.takeOffHelp') }}</p>
      </TrayItem>
      <TrayItem :name="$t('layer.cutoutPart.shown')">
        <ToolLine>
          <SwitchField
            :on="cutout.on !== false"
            data-test="cut-on"
            @update:on="set({ on: $event })"
          >
            {{ $t('layer.cutoutPart.shown') }}
          </SwitchField>
          <SwitchField
            :on="cutout.invert ?? false"
            data-test="cut-invert"
            @update:on="set({ invert: $event })"
          >
            {{ $t('layer.cutoutPart.invert') }}
          </SwitchField>
        </ToolLine>
      </TrayItem>
      <ControlFields
        :controls="kit.layer?.cutout ?? []"
        :values="cutout as unknown as Record<string, unknown>"
        :local="layer.local.value"
        @trying="trying($event)"
        @set="set($event)"
      />
    </template>
    <TrayItem
      v-if="pieces.length"
      :name="$t('layer.cutoutPart.taken', { n: pieces.length }, pieces.length)"
      last
    >
      <ToolLine>
        <BButton
          v-for="(one, index) in pieces"
          :key="index"
          size="sm"
          variant="secondary"
          data-test="put-back"
          @click="layer.removeItem(`taken_off/${index}`)"
        >
          {{ $t('layer.cutoutPart.putBack', { name: one.name }) }}
        </BButton>
        <BButton size="sm" variant="secondary" data-test="gather-pieces" @click="gather">
          {{ $t('layer.cutoutPart.gather') }}
        </BButton>
      </ToolLine>
    </TrayItem>
    <NameDialog
      v-model="name"
      :open="naming"
      :title="$t('layer.cutoutPart.takeOff')"
      @ok="takeOff"
      @hidden="naming = false"
    />
  </fieldset>
</template>

<style scoped>
.cutout {
  display: grid;
  gap: 6px;
  min-width: 0;
  align-content: start;
}
p {
  margin: 0;
}
</style>
