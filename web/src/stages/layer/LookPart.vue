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
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'
import SwitchField from '@/controls/SwitchField.vue'

const props = defineProps<{ layer: Layer }>()
const kit = useKit()
const clip = computed(() => props.layer.clip.value)

const GROUPS = [
  ['plain', t('layer.lookPart.plain')],
  ['darker', t('layer.lookPart.darker')],
  ['lighter', t('layer.lookPart.lighter')],
  ['contrast', t('layer.lookPart.contrast')],
  ['difference', t('layer.lookPart.difference')],
  ['colour', t('words.colour')],
  ['holdout', t('layer.lookPart.holdoutNotSeenCutsA')],
] as const
const groups = computed(() =>
  GROUPS.map(([id, name]) => ({
    name,
    modes: (kit.layer?.blends ?? []).filter((one) => one.group === id),
  })),
)

const CLIPPED = [
  { id: '', name: t('layer.lookPart.free'), help: t('layer.lookPart.seenWhereverItIs') },
  {
    id: 'alpha',
    name: t('layer.lookPart.byAlpha'),
    help: t('layer.lookPart.onlyWhereTheLayerBelow'),
  },
  {
    id: 'luma',
    name: t('layer.lookPart.byLuma'),
    help: t('layer.lookPart.onlyWhereItIsBright'),
  },
] as const
const FITS = [
  { id: 'whole', name: t('layer.lookPart.whole'), help: t('layer.lookPart.allOfItIsSeen') },
  { id: 'fill', name: t('layer.lookPart.fill'), help: t('layer.lookPart.itFillsTheCanvas') },
  { id: 'own', name: t('layer.lookPart.ownPixels'), help: t('layer.lookPart.aPixelForAPixel') },
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
    <TrayItem :name="$t('layer.lookPart.blend')" :told="clip.blend ?? $t('layer.lookPart.normal')">
      <label class="line">
        <span class="name">{{ $t('layer.lookPart.blend') }}</span>
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
      :label="$t('words.opacity')"
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
      :name="$t('layer.lookPart.clipped')"
      :label="$t('layer.lookPart.clippedToTheLayerBelow')"
      :choices="CLIPPED"
      :taken="clip.clipped ?? ''"
      @take="layer.setWhole({ clipped: $event })"
    >
      <p v-if="clip.clipped" class="tiny quiet note">
        {{
          $t('layer.lookPart.seenOnlyWhereTheNearest', {
            clipped:
              clip.clipped === 'alpha' ? $t('layer.lookPart.solid') : $t('layer.lookPart.bright'),
          })
        }}
      </p>
    </ChoiceRow>
    <ChoiceRow
      v-if="picture"
      :name="$t('layer.lookPart.fit')"
      :choices="FITS"
      :taken="clip.place?.fit ?? 'whole'"
      @take="layer.setWhole({ 'place/fit': $event })"
    />
    <TrayItem :name="$t('layer.lookPart.flip')">
      <div class="line">
        <span class="name">{{ $t('layer.lookPart.flip') }}</span>
        <SwitchField
          :on="clip.place?.mirrored ?? false"
          data-test="mirrored"
          @update:on="layer.setWhole({ 'place/mirrored': $event })"
        >
          {{ $t('layer.lookPart.leftForRight') }}
        </SwitchField>
        <SwitchField
          :on="clip.place?.upside_down ?? false"
          @update:on="layer.setWhole({ 'place/upside_down': $event })"
        >
          {{ $t('layer.lookPart.upsideDown') }}
        </SwitchField>
      </div>
    </TrayItem>
    <template v-if="!isDrawn(clip)">
      <TrayItem :name="$t('layer.lookPart.crop')">
        <div class="line">
          <span class="name">{{ $t('layer.lookPart.crop') }}</span>
          <BButton
            v-if="!crop"
            size="sm"
            variant="secondary"
            data-test="crop"
            @click="layer.setWhole({ crop: { left: 0.1, right: 0.1 } })"
          >
            {{ $t('layer.lookPart.cutTheSidesAway') }}
          </BButton>
          <BButton v-else size="sm" variant="secondary" @click="layer.setWhole({ crop: null })">
            {{ $t('layer.lookPart.showAllOfIt') }}
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
