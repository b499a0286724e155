<script setup lang="ts">
/** Masks of a layer or of a zone: one in hand, with its values; drawn and painted on the picture. */
import { BButton, BDropdown, BDropdownItemButton } from 'bootstrap-vue-next'
import { computed, inject, nextTick, onScopeDispose, watch } from 'vue'
import IconBrush from '~icons/tabler/brush'
import IconEraser from '~icons/tabler/eraser'
import IconPlus from '~icons/tabler/plus'
import IconTrash from '~icons/tabler/trash'
import { changedAt, isKeyed, toggledKey } from '@/motion/keys'
import { keyedState } from '@/motion/props'
import KeyButton from '@/controls/KeyButton.vue'
import PointBench from '@/controls/PointBench.vue'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import ValueField from '@/controls/ValueField.vue'
import RangeSliders from '@/controls/RangeSliders.vue'
import SwitchField from '@/controls/SwitchField.vue'
import { FRESH_MASKS, JOINS, strokesAt, TOOLS, type MaskOwner } from '@/inhand/maskOwner'
import { useScreen } from '@/player/inject'
import { useDrawing } from '@/stores/drawing'
import { useKit } from '@/stores/kit'
import { t } from '@/texts'
import { bring, TRAY } from '@/tray/tray'
import TrayItem from '@/tray/TrayItem.vue'
import MaskAlong from './MaskAlong.vue'

const props = defineProps<{
  owner: MaskOwner
  /** What masks say of their owner, while there is none. */
  told: string
}>()
const kit = useKit()
const drawing = useDrawing()
const { player } = useScreen()

const masks = computed(() => props.owner.masks.value)
const taken = computed(() => props.owner.taken.value)
const mask = computed(() => masks.value[taken.value] ?? null)
const local = computed(() => props.owner.local.value)
const controls = computed(() => kit.layer?.masks[mask.value?.kind ?? ''] ?? [])

async function add(one: (typeof FRESH_MASKS)[number]) {
  const count = masks.value.length
  if (!(await props.owner.add(one.mask))) return
  props.owner.take(count)
  drawing.tool = TOOLS[one.mask.kind] ?? ''
}

const set = (values: Record<string, unknown>) =>
  props.owner.send(props.owner.step(values, taken.value))
const trying = (values: Record<string, unknown>) =>
  player.tryOut(props.owner.step(values, taken.value))

// A tool belongs to its kind of mask.
watch(mask, (now) => {
  const fits = now && TOOLS[now.kind] === drawing.tool
  if (drawing.tool && !fits) drawing.tool = ''
})
const tray = inject(TRAY, null)
const BENCHES = { brush: t('picture.maskList.brushAndWipe'), pen: t('picture.maskList.points') }
watch(
  () => (drawing.tool === 'brush' || drawing.tool === 'pen' ? drawing.tool : null),
  async (tool) => {
    await nextTick()
    if (tool) bring(tray, BENCHES[tool])
  },
  { immediate: true },
)
onScopeDispose(() => {
  if (drawing.tool === 'brush' || drawing.tool === 'pen') drawing.tool = ''
})

/** Set a key of the path at the playhead, or take away the one that is there. */
function keyPath() {
  if (mask.value?.kind !== 'path') return
  set({ contours: toggledKey(mask.value.contours, local.value, []) })
}

/** The same of what is painted: from here on it may be another. */
function keyStrokes() {
  if (mask.value?.kind !== 'brush') return
  set({ strokes: toggledKey(mask.value.strokes, local.value, []) })
}

const strokes = computed(() => strokesAt(mask.value, local.value))

function undoStroke() {
  if (mask.value?.kind !== 'brush' || !strokes.value.length) return
  if (isKeyed(mask.value.strokes)) {
    const left = strokes.value.slice(0, -1)
    set({ strokes: changedAt(mask.value.strokes, local.value, left) })
  } else props.owner.removeStroke(taken.value, strokes.value.length - 1)
}

function paint(erase: boolean) {
  drawing.tool = 'brush'
  drawing.brush.erase = erase
}
</script>

<template>
  <div class="masks tray-group">
    <TrayItem :name="$t('words.masks')">
      <div class="line">
        <ChoiceGroup
          v-if="masks.length"
          :label="$t('picture.maskList.maskInHand')"
          :choices="masks.map((one, index) => ({ id: index, name: `${index + 1} ${one.kind}` }))"
          :taken="taken"
          @take="owner.take"
        />
        <BDropdown
          size="sm"
          variant="secondary"
          teleport-to="body"
          strategy="fixed"
          data-test="add-mask"
        >
          <template #button-content
            ><IconPlus aria-hidden="true" /> {{ $t('words.mask') }}</template
          >
          <BDropdownItemButton
            v-for="one in FRESH_MASKS"
            :key="one.id"
            :data-test="`mask-${one.id}`"
            @click="add(one)"
          >
            {{ one.name }}
          </BDropdownItemButton>
        </BDropdown>
      </div>
      <p v-if="!masks.length" class="tiny quiet">{{ told }}</p>
    </TrayItem>
    <template v-if="mask">
      <TrayItem :name="$t('picture.maskList.thisMask')">
        <div class="line">
          <ChoiceGroup
            v-if="taken > 0"
            :label="$t('picture.maskList.howItJoinsTheMasks')"
            :choices="JOINS"
            :taken="mask.join ?? 'add'"
            @take="set({ join: $event })"
          />
          <SwitchField :on="mask.on !== false" @update:on="set({ on: $event })">
            {{ $t('picture.maskList.on') }}
          </SwitchField>
          <SwitchField
            :on="mask.invert ?? false"
            data-test="mask-invert"
            @update:on="set({ invert: $event })"
          >
            {{ $t('picture.maskList.outsideOfIt') }}
          </SwitchField>
          <BButton
            size="sm"
            variant="secondary"
            :aria-label="$t('picture.maskList.deleteThisMask')"
            data-test="remove-mask"
            @click="owner.remove(taken)"
          >
            <IconTrash aria-hidden="true" />
          </BButton>
        </div>
      </TrayItem>
      <MaskAlong :owner="owner" />
      <TrayItem v-if="mask.kind === 'path'" :name="$t('picture.maskList.points')">
        <PointBench :keyed="keyedState(mask.contours, local)" @key="keyPath" />
      </TrayItem>
      <template v-if="mask.kind === 'brush'">
        <TrayItem :name="$t('picture.maskList.brushAndWipe')">
          <div class="line">
            <BButton
              size="sm"
              variant="secondary"
              :aria-pressed="drawing.tool === 'brush' && !drawing.brush.erase"
              data-test="brush"
              @click="paint(false)"
            >
              <IconBrush aria-hidden="true" /> {{ $t('picture.maskList.paint') }}
            </BButton>
            <BButton
              size="sm"
              variant="secondary"
              :aria-pressed="drawing.tool === 'brush' && drawing.brush.erase"
              @click="paint(true)"
            >
              <IconEraser aria-hidden="true" /> {{ $t('picture.maskList.wipe') }}
            </BButton>
            <BButton
              size="sm"
              variant="secondary"
              :disabled="!strokes.length"
              :title="$t('picture.maskList.takeTheLastStrokeAway')"
              @click="undoStroke"
            >
              {{ $t('picture.maskList.lastAway') }}
            </BButton>
            <KeyButton
              :label="$t('picture.maskList.painted')"
              :keyed="keyedState(mask.strokes, local)"
              data-test="key-strokes"
              @click="keyStrokes"
            />
          </div>
        </TrayItem>
        <ValueField
          :label="$t('picture.maskList.brush')"
          :help="$t('picture.maskList.widthOfTheBrush')"
          :value="drawing.brush.width * 100"
          :low="0.5"
          :high="40"
          :step="0.5"
          :digits="1"
          unit="%"
          @trying="drawing.brush.width = $event / 100"
          @set="drawing.brush.width = $event / 100"
        />
        <ValueField
          :label="$t('picture.maskList.softness')"
          :value="drawing.brush.softness * 100"
          :low="0"
          :high="100"
          :step="5"
          unit="%"
          @trying="drawing.brush.softness = $event / 100"
          @set="drawing.brush.softness = $event / 100"
        />
      </template>
      <RangeSliders
        :controls="controls"
        :values="mask as unknown as Record<string, unknown>"
        :local="local"
        @trying="trying($event)"
        @set="set($event)"
      />
    </template>
  </div>
</template>

<style scoped>
.masks {
  display: grid;
  gap: 6px;
  min-width: 0;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
}
p {
  margin: 0;
}
</style>
