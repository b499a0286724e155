<script setup lang="ts">
/** Places that files go to; one is taken, or with several at once some. */
import type { Schemas } from '@/api/client'
import type { ExportSettings } from '@/api/types'
import SwitchField from '@/controls/SwitchField.vue'
import { useSending } from '@/stores/sending'
import { bytesLabel } from '@/time'
import TrayItem from '@/tray/TrayItem.vue'
import { sizeOf } from './sizes'
import type { useEstimates } from './useEstimates'

type Destination = Schemas['Destination']

const props = defineProps<{ estimates: ReturnType<typeof useEstimates> }>()
const sending = useSending()

const settingsOf = (id: string) => sending.settingsOf(id)
function shapeOf(settings: ExportSettings | null) {
  if (!settings) return '1'
  const { width, height } = sizeOf(sending.canvas, settings)
  return `${width} / ${height}`
}
const isUpright = (settings: ExportSettings | null) => {
  const { width, height } = settings ? sizeOf(sending.canvas, settings) : sending.canvas
  return height > width
}
function facts(settings: ExportSettings | null) {
  const format = settings && sending.formatOf(settings)
  if (!settings || !format) return ''
  if (format.kind === 'sound') return format.label
  const { width, height } = sizeOf(sending.canvas, settings)
  return `${width} × ${height} · ${format.label}`
}
const bytesOf = (id: string) => props.estimates.of(settingsOf(id))?.bytes ?? null
/** Whether it weighs more than the destination takes. */
const isTooHeavy = ({ id, most_bytes: most }: Destination) => most > 0 && (bytesOf(id) ?? 0) > most
</script>

<template>
  <TrayItem :name="$t('send.destinationCards.place')" :told="sending.destination?.title">
    <div class="cards" role="group" :aria-label="$t('send.destinationCards.whereItGoes')">
      <button
        v-for="one in sending.destinations"
        :key="one.id"
        type="button"
        class="choice"
        :class="{ shown: sending.several && sending.at === one.id }"
        :aria-pressed="sending.chosen.includes(one.id)"
        :title="one.help"
        :data-test="`destination-${one.id}`"
        @click="sending.take(one.id)"
      >
        <span class="frame">
          <span
            class="sheet-of"
            :class="{ upright: isUpright(settingsOf(one.id)) }"
            :style="{ aspectRatio: shapeOf(settingsOf(one.id)) }"
          />
        </span>
        <span class="words">
          <strong> {{ one.title }}<template v-if="sending.isChanged(one.id)"> *</template> </strong>
          <span class="tiny quiet clip-text">{{ facts(settingsOf(one.id)) }}</span>
          <span
            v-if="bytesOf(one.id) !== null"
            class="tiny soft"
            :class="{ heavy: isTooHeavy(one) }"
          >
            ≈ {{ bytesLabel(bytesOf(one.id) ?? 0) }}
            <template v-if="isTooHeavy(one)">
              · {{ $t('send.destinationCards.takes', { most: bytesLabel(one.most_bytes) }) }}
            </template>
          </span>
        </span>
      </button>
    </div>
  </TrayItem>
  <div class="switches">
    <TrayItem
      :name="$t('send.destinationCards.several')"
      :told="$t(sending.several ? 'words.isOn' : 'words.isOff')"
    >
      <SwitchField
        class="small soft"
        :on="sending.several"
        data-test="several-places"
        @update:on="sending.severalAtOnce"
      >
        {{ $t('send.destinationCards.severalAtOnce') }}
      </SwitchField>
    </TrayItem>
    <TrayItem
      :name="$t('send.destinationCards.library')"
      :told="$t(sending.asTake ? 'words.isOn' : 'words.isOff')"
    >
      <SwitchField
        class="small soft"
        :on="sending.asTake"
        data-test="as-take"
        @update:on="sending.asTake = $event"
      >
        {{ $t('send.destinationCards.asTake') }}
      </SwitchField>
    </TrayItem>
  </div>
</template>

<style scoped>
.cards {
  overflow-y: auto;
  min-height: 0;
  scrollbar-width: thin;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(168px, 1fr));
  gap: 8px;
}
.choice {
  display: flex;
  gap: 10px;
  align-items: center;
  text-align: left;
  min-height: 56px;
  padding: 6px 10px;
  border: 2px solid transparent;
  border-radius: 12px 12px 3px 12px;
  background: var(--raised);
  color: var(--text);
}
.choice[aria-pressed='true'] {
  border-color: var(--accent);
}
.choice.shown {
  background: #453c4e;
}
.frame {
  display: grid;
  place-items: center;
  width: 36px;
  height: 38px;
  flex: none;
}
.sheet-of {
  width: 36px;
  border-radius: 4px 4px 1px 4px;
  background: linear-gradient(#e8a98a, #8f5a6c);
}
.heavy {
  color: #f2c14e;
}
.words {
  display: grid;
  min-width: 0;
  line-height: 1.25;
}
.sheet-of.upright {
  width: auto;
  height: 38px;
}
.switches {
  display: flex;
  flex-wrap: wrap;
  gap: 0 18px;
}
.phone .switches {
  display: contents;
}
.phone .cards {
  display: flex;
  overflow-x: auto;
  scrollbar-width: none;
}
.phone .choice {
  flex: none;
  max-width: 230px;
}
</style>
