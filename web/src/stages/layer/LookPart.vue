<script setup lang="ts">
/** How a layer is laid: blend mode, opacity, clipping, fit, flip, crop. */
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import ChoiceRow from '@/controls/ChoiceRow.vue'
import ControlFields from '@/controls/ControlFields.vue'
import ValueField from '@/controls/ValueField.vue'
import { isDrawn } from '@/api/types'
import { useKit } from '@/stores/kit'
import type { Layer } from '@/inhand/useLayer'
import TrayItem from '@/tray/TrayItem.vue'
import SwitchField from '@/controls/SwitchField.vue'

const props = defineProps<{ layer: Layer }>()
const kit = useKit()
const clip = computed(() => props.layer.clip.value)

const GROUPS = [
  ['plain', 'Plain'],
  ['darker', 'Darker'],
  ['lighter', 'Lighter'],
  ['contrast', 'Contrast'],
  ['difference', 'Difference'],
  ['colour', 'Colour'],
  ['holdout', 'Holdout: not seen, cuts a hole below'],
] as const
const groups = computed(() =>
  GROUPS.map(([id, name]) => ({
    name,
    modes: (kit.layer?.blends ?? []).filter((one) => one.group === id),
  })),
)

const CLIPPED = [
  { id: '', name: 'Free', help: 'Seen wherever it is' },
  { id: 'alpha', name: 'By alpha', help: 'Only where the layer below is solid' },
  { id: 'luma', name: 'By luma', help: 'Only where the layer below is bright' },
] as const
const FITS = [
  { id: 'whole', name: 'Whole', help: 'All of it is seen' },
  { id: 'fill', name: 'Fill', help: 'It fills the canvas' },
  { id: 'own', name: 'Own pixels', help: 'A pixel for a pixel' },
] as const

const picture = computed(() => {
  const kind = clip.value?.kind
  return kind === 'video' || kind === 'still' || kind === 'sequence'
})
const crop = computed(() => clip.value?.crop as Record<string, unknown> | null | undefined)
const cropValues = (values: Record<string, unknown>) =>
  crop.value
    ? Object.fromEntries(Object.entries(values).map(([k, v]) => [`crop/${k}`, v]))
    : { crop: values }
</script>

<template>
  <fieldset v-if="clip" class="look" :disabled="layer.locked.value">
    <TrayItem name="Blend" :told="clip.blend ?? 'normal'">
      <label class="line">
        <span class="name">Blend</span>
        <select
          class="form-select form-select-sm"
          :value="clip.blend ?? 'normal'"
          data-test="blend"
          @change="layer.setWhole({ blend: ($event.target as HTMLSelectElement).value })"
        >
          <optgroup v-for="group in groups" :key="group.name" :label="group.name">
            <option v-for="mode in group.modes" :key="mode.name" :value="mode.name">
              {{ mode.title }}
            </option>
          </optgroup>
        </select>
      </label>
    </TrayItem>
    <ValueField
      label="Opacity"
      :value="layer.now('opacity', 1) * 100"
      :low="0"
      :high="100"
      :step="1"
      unit="%"
      :reset="100"
      :keyed="layer.keyed('opacity')"
      @trying="layer.trying({ opacity: $event / 100 })"
      @set="layer.set({ opacity: $event / 100 })"
      @key="layer.toggleKey('opacity', 1)"
    />
    <ChoiceRow
      name="Clipped"
      label="Clipped to the layer below"
      :choices="CLIPPED"
      :taken="clip.clipped ?? ''"
      @take="layer.setWhole({ clipped: $event })"
    >
      <p v-if="clip.clipped" class="tiny quiet note">
        Seen only where the nearest layer below that is free is
        {{ clip.clipped === 'alpha' ? 'solid' : 'bright' }}.
      </p>
    </ChoiceRow>
    <ChoiceRow
      v-if="picture"
      name="Fit"
      :choices="FITS"
      :taken="clip.place?.fit ?? 'whole'"
      @take="layer.setWhole({ 'place/fit': $event })"
    />
    <TrayItem name="Flip">
      <div class="line">
        <span class="name">Flip</span>
        <SwitchField
          :on="clip.place?.mirrored ?? false"
          data-test="mirrored"
          @update:on="layer.setWhole({ 'place/mirrored': $event })"
        >
          Left for right
        </SwitchField>
        <SwitchField
          :on="clip.place?.upside_down ?? false"
          @update:on="layer.setWhole({ 'place/upside_down': $event })"
        >
          Upside down
        </SwitchField>
      </div>
    </TrayItem>
    <template v-if="!isDrawn(clip)">
      <TrayItem name="Crop">
        <div class="line">
          <span class="name">Crop</span>
          <BButton
            v-if="!crop"
            size="sm"
            variant="secondary"
            data-test="crop"
            @click="layer.setWhole({ crop: { left: 0.1, right: 0.1 } })"
          >
            Cut the sides away
          </BButton>
          <BButton v-else size="sm" variant="secondary" @click="layer.setWhole({ crop: null })">
            Show all of it
          </BButton>
        </div>
      </TrayItem>
      <ControlFields
        v-if="crop"
        :controls="kit.layer?.crop ?? []"
        :values="crop"
        :local="layer.local.value"
        @trying="layer.tryWhole(cropValues($event))"
        @set="layer.setWhole(cropValues($event))"
      />
    </template>
  </fieldset>
</template>

<style scoped>
.look {
  display: grid;
  gap: 4px;
  min-width: 0;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
  min-height: 38px;
}
.name {
  min-width: 74px;
  color: var(--soft);
}
.form-select {
  width: auto;
  flex: 1;
  min-height: var(--touch);
}
.note {
  margin: 0;
}
</style>
