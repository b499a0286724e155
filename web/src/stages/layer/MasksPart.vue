<script setup lang="ts">
/** The masks of a layer: one in hand, with its values; drawn and painted on the picture. */
import { BButton, BDropdown, BDropdownItemButton } from 'bootstrap-vue-next'
import { computed, watch } from 'vue'
import IconBrush from '~icons/tabler/brush'
import IconEraser from '~icons/tabler/eraser'
import IconPen from '~icons/tabler/vector-bezier-2'
import IconPlus from '~icons/tabler/plus'
import IconTrash from '~icons/tabler/trash'
import type { Mask } from '@/api/types'
import { toggledKey } from '@/motion/keys'
import { keyedState } from '@/motion/props'
import KeyButton from '@/controls/KeyButton.vue'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import ValueField from '@/controls/ValueField.vue'
import RangeSliders from '@/controls/RangeSliders.vue'
import { useKit } from '@/stores/kit'
import { useLayering } from '@/stores/layering'
import type { Layer } from '@/inhand/useLayer'
import TrayItem from '@/tray/TrayItem.vue'
import SwitchField from '@/controls/SwitchField.vue'

const props = defineProps<{ layer: Layer }>()
const kit = useKit()
const layering = useLayering()

const masks = computed<Mask[]>(() => props.layer.clip.value?.masks ?? [])
const mask = computed(() => masks.value[layering.mask] ?? masks.value[0] ?? null)

const soft = { inwards: 0.02, outwards: 0.03 }
const FRESH = [
  { id: 'ellipse', name: 'Ellipse', mask: { kind: 'ellipse', size: [0.16, 0.16], ...soft } },
  {
    id: 'rectangle',
    name: 'Rectangle',
    mask: { kind: 'rectangle', size: [0.16, 0.12], radius: 0.02, ...soft },
  },
  { id: 'edge', name: 'Straight edge', mask: { kind: 'edge', ...soft } },
  { id: 'path', name: 'Pen path', mask: { kind: 'path', contours: [] } },
  { id: 'brush', name: 'Brush', mask: { kind: 'brush' } },
  {
    id: 'leave-out',
    name: 'Rough area to leave out',
    mask: {
      kind: 'rectangle',
      size: [0.1, 0.5],
      centre: [-0.2, 0],
      invert: true,
      join: 'intersect',
      ...soft,
    },
  },
] as const

const JOINS = [
  { id: 'add', name: 'Add' },
  { id: 'subtract', name: 'Subtract' },
  { id: 'intersect', name: 'Intersect' },
] as const

async function add(one: (typeof FRESH)[number]) {
  const count = masks.value.length
  const done = await props.layer.addParts('masks', [one.mask])
  if (!done) return
  layering.mask = count
  layering.tool = one.id === 'path' ? 'pen' : one.id === 'brush' ? 'brush' : ''
}

const set = (values: Record<string, unknown>) =>
  props.layer.setPart('masks', mask.value?.id ?? '', values)
const trying = (values: Record<string, unknown>) =>
  props.layer.tryPart('masks', mask.value?.id ?? '', values)

// A tool belongs to its kind of mask.
watch(mask, (now) => {
  const tools: Partial<Record<Mask['kind'], string>> = { brush: 'brush', path: 'pen' }
  const fits = now && tools[now.kind] === layering.tool
  if (layering.tool && !fits) layering.tool = ''
})

/** Set a key of the path at the playhead, or take away the one that is there. */
function keyPath() {
  if (mask.value?.kind !== 'path') return
  set({ contours: toggledKey(mask.value.contours, props.layer.local.value, []) })
}

function undoStroke() {
  const one = mask.value
  const last = one?.kind === 'brush' ? (one.strokes?.length ?? 0) - 1 : -1
  if (last >= 0) props.layer.removeItem(`masks/${one?.id}/strokes/${last}`)
}
</script>

<template>
  <fieldset class="masks" :disabled="layer.locked.value">
    <TrayItem name="Masks">
      <div class="line">
        <ChoiceGroup
          v-if="masks.length"
          label="Mask in hand"
          :choices="masks.map((one, index) => ({ id: index, name: `${index + 1} ${one.kind}` }))"
          :taken="Math.max(0, mask ? masks.indexOf(mask) : 0)"
          @take="layering.mask = $event"
        />
        <BDropdown
          size="sm"
          variant="secondary"
          teleport-to="body"
          strategy="fixed"
          data-test="add-mask"
        >
          <template #button-content><IconPlus aria-hidden="true" /> Mask</template>
          <BDropdownItemButton
            v-for="one in FRESH"
            :key="one.id"
            :data-test="`mask-${one.id}`"
            @click="add(one)"
          >
            {{ one.name }}
          </BDropdownItemButton>
        </BDropdown>
      </div>
      <p v-if="!masks.length" class="tiny quiet">
        A mask says where the layer is seen. Several go together: added, subtracted, intersected.
        They are moved, sized and softened on the picture, and can have keys.
      </p>
    </TrayItem>
    <template v-if="mask">
      <TrayItem name="This mask">
        <div class="line">
          <ChoiceGroup
            v-if="masks.indexOf(mask) > 0"
            label="How it joins the masks before it"
            :choices="JOINS"
            :taken="mask.join ?? 'add'"
            @take="set({ join: $event })"
          />
          <SwitchField :on="mask.on !== false" @update:on="set({ on: $event })"> On </SwitchField>
          <SwitchField
            :on="mask.invert ?? false"
            data-test="mask-invert"
            @update:on="set({ invert: $event })"
          >
            Outside of it
          </SwitchField>
          <BButton
            size="sm"
            variant="secondary"
            aria-label="Delete this mask"
            data-test="remove-mask"
            @click="layer.removePart('masks', mask.id ?? '')"
          >
            <IconTrash aria-hidden="true" />
          </BButton>
        </div>
      </TrayItem>
      <TrayItem v-if="mask.kind === 'path'" name="Points">
        <div class="line">
          <BButton
            size="sm"
            variant="secondary"
            :aria-pressed="layering.tool === 'pen'"
            data-test="pen"
            @click="layering.tool = layering.tool === 'pen' ? '' : 'pen'"
          >
            <IconPen aria-hidden="true" /> Set points
          </BButton>
          <KeyButton
            label="Path"
            :keyed="keyedState(mask.contours, layer.local.value)"
            @click="keyPath"
          />
          <span class="tiny quiet">
            {{
              layering.tool === 'pen'
                ? 'Tap on the picture; tap the first point to close'
                : 'Tap the line to add a point, drag points to move them'
            }}
          </span>
        </div>
      </TrayItem>
      <template v-if="mask.kind === 'brush'">
        <TrayItem name="Brush and wipe">
          <div class="line">
            <BButton
              size="sm"
              variant="secondary"
              :aria-pressed="layering.tool === 'brush' && !layering.brush.erase"
              data-test="brush"
              @click="((layering.tool = 'brush'), (layering.brush.erase = false))"
            >
              <IconBrush aria-hidden="true" /> Paint
            </BButton>
            <BButton
              size="sm"
              variant="secondary"
              :aria-pressed="layering.tool === 'brush' && layering.brush.erase"
              @click="((layering.tool = 'brush'), (layering.brush.erase = true))"
            >
              <IconEraser aria-hidden="true" /> Wipe
            </BButton>
            <BButton
              size="sm"
              variant="secondary"
              :disabled="!mask.strokes?.length"
              @click="undoStroke"
            >
              Take the last stroke away
            </BButton>
          </div>
        </TrayItem>
        <ValueField
          label="Brush"
          help="Width of the brush"
          :value="layering.brush.width * 100"
          :low="0.5"
          :high="40"
          :step="0.5"
          :digits="1"
          unit="%"
          @trying="layering.brush.width = $event / 100"
          @set="layering.brush.width = $event / 100"
        />
        <ValueField
          label="Softness"
          :value="layering.brush.softness * 100"
          :low="0"
          :high="100"
          :step="5"
          unit="%"
          @trying="layering.brush.softness = $event / 100"
          @set="layering.brush.softness = $event / 100"
        />
      </template>
      <RangeSliders
        :controls="
          (kit.layer?.masks[mask.kind] ?? []).filter(
            (one) => mask?.kind !== 'brush' || !['grow', 'inwards', 'outwards'].includes(one.name),
          )
        "
        :values="mask as unknown as Record<string, unknown>"
        :local="layer.local.value"
        @trying="trying($event)"
        @set="set($event)"
      />
    </template>
  </fieldset>
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
[aria-pressed='true'] {
  background: #453c4e;
  color: var(--text);
}
</style>
