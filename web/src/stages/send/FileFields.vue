<script setup lang="ts">
/** What a file is to be, for the place whose settings are shown. */
import { computed } from 'vue'
import type { ExportSettings } from '@/api/types'
import ChoiceRow from '@/controls/ChoiceRow.vue'
import NumberBox from '@/controls/NumberBox.vue'
import SwitchField from '@/controls/SwitchField.vue'
import { useKit } from '@/stores/kit'
import { useProject } from '@/stores/project'
import { useSending } from '@/stores/sending'
import { t } from '@/texts'
import { rateLabel } from '@/time'
import TrayItem from '@/tray/TrayItem.vue'
import { captionTrack } from './captions'
import { anyFollowed } from './followed'
import CoverField from './CoverField.vue'
import RangeField from './RangeField.vue'
import { SHAPES, sizeOf, sizesOf } from './sizes'

const props = defineProps<{ settings: ExportSettings }>()
const sending = useSending()
const project = useProject()
const kit = useKit()

const KINDS = [
  { kind: 'film', name: t('send.fileFields.films') },
  { kind: 'moving', name: t('send.fileFields.moving') },
  { kind: 'still', name: t('send.fileFields.stills') },
  { kind: 'pictures', name: t('send.fileFields.pictures') },
  { kind: 'sound', name: t('send.fileFields.sounds') },
]
const QUALITIES = [
  { id: 'small', name: t('send.fileFields.small') },
  { id: 'good', name: t('send.fileFields.good') },
  { id: 'best', name: t('send.fileFields.best') },
] as const
type Quality = (typeof QUALITIES)[number]['id']
type Fit = NonNullable<ExportSettings['fit']>

const format = computed(() => sending.formatOf(props.settings))
const pictured = computed(() => format.value?.kind !== 'sound')
const moves = computed(() => ['film', 'moving', 'pictures'].includes(format.value?.kind ?? ''))
const sizes = computed(() =>
  sizesOf(sending.canvas, props.settings).map(({ id, width, height }) => ({
    id,
    help: `${width} × ${height}`,
    name: id
      ? t('send.fileFields.lines', { min: Math.min(width, height) })
      : t('send.fileFields.full'),
    test: `size-${id}`,
  })),
)

const OWN = 'own'
const shapes = computed(() => [
  { id: OWN, name: t('send.fileFields.own') },
  ...SHAPES.map(({ width, height }) => {
    const id = `${width}:${height}`
    return { id, name: id, test: `shape-${width}-${height}` }
  }),
])
const shape = computed(() => {
  const own = props.settings.shape
  return own ? `${own.width}:${own.height}` : OWN
})
function takeShape(id: string) {
  const [width, height] = id.split(':').map(Number)
  sending.adjust({ shape: width && height ? { width, height } : null, long_side: 0 })
}
const changesShape = computed(() => {
  const own = sizeOf(sending.canvas, { ...props.settings, shape: null })
  const now = sizeOf(sending.canvas, props.settings)
  return Math.abs(own.width / own.height - now.width / now.height) > 0.01
})

const fits = computed(() => {
  const fit = { id: 'fit', name: t('send.fileFields.fit'), help: t('send.fileFields.fitHelp') }
  const fill = { id: 'fill', name: t('send.fileFields.fill'), help: t('send.fileFields.fillHelp') }
  const follow = {
    id: 'follow',
    name: t('send.fileFields.follow'),
    help: t('send.fileFields.followHelp'),
    test: 'fit-follow',
  }
  const offered = anyFollowed(project.tracks) || props.settings.fit === 'follow'
  return (offered ? [fit, fill, follow] : [fit, fill]) as { id: Fit; name: string }[]
})

const rates = computed(() => [
  { id: OWN, name: t('send.fileFields.own'), help: rateLabel(project.rate) },
  ...(kit.send?.rates ?? [])
    .filter((one) => one.num / (one.den ?? 1) < project.rate.num / project.rate.den)
    .map((one) => ({ ...one, den: one.den ?? 1 }))
    .map((one) => ({ id: `${one.num}/${one.den}`, name: rateLabel(one) })),
])
const rate = computed(() => {
  const own = props.settings.rate
  return own ? `${own.num}/${own.den ?? 1}` : OWN
})
function takeRate(id: string) {
  const [num, den] = id.split('/').map(Number)
  sending.adjust({ rate: num && den ? { num, den } : null })
}
const megabytes = computed(() => (props.settings.most_bytes ?? 0) / 1e6)

const captions = computed(() => {
  const seen = { id: 'seen', name: t('send.fileFields.seen'), test: 'captions-seen' } as const
  const track = {
    id: 'track',
    name: t('send.fileFields.asTrack'),
    help: t('send.fileFields.asTrackHelp'),
    test: 'captions-track',
  } as const
  const none = {
    id: 'left_out',
    name: t('send.fileFields.leftOut'),
    test: 'captions-none',
  } as const
  return format.value?.can_caption ? [seen, track, none] : [seen, none]
})
</script>

<template>
  <TrayItem :name="$t('send.fileFields.format')" :told="format?.label">
    <label class="line">
      <span class="name">{{ $t('send.fileFields.format') }}</span>
      <select
        class="form-select form-select-sm"
        :value="settings.format"
        data-test="format"
        @change="sending.adjust({ format: ($event.target as HTMLSelectElement).value })"
      >
        <optgroup v-for="group in KINDS" :key="group.kind" :label="group.name">
          <option
            v-for="one in sending.formats.filter(({ kind }) => kind === group.kind)"
            :key="one.id"
            :value="one.id"
          >
            {{ one.label }} – {{ one.help }}
          </option>
        </optgroup>
      </select>
    </label>
  </TrayItem>
  <template v-if="pictured">
    <ChoiceRow
      :name="$t('send.fileFields.shape')"
      :choices="shapes"
      :taken="shape"
      @take="takeShape"
    />
    <ChoiceRow
      v-if="changesShape"
      :name="$t('send.fileFields.liesIn')"
      :choices="fits"
      :taken="settings.fit ?? 'fit'"
      @take="sending.adjust({ fit: $event })"
    />
    <ChoiceRow
      :name="$t('words.size')"
      :choices="sizes"
      :taken="settings.long_side ?? 0"
      @take="sending.adjust({ long_side: $event })"
    />
    <ChoiceRow
      v-if="moves"
      :name="$t('send.fileFields.framesASecond')"
      :choices="rates"
      :taken="rate"
      @take="takeRate"
    />
  </template>
  <ChoiceRow
    :name="$t('send.fileFields.quality')"
    :choices="QUALITIES"
    :taken="settings.quality ?? 'good'"
    @take="sending.adjust({ quality: $event as Quality })"
  />
  <TrayItem
    v-if="format?.can_fit"
    :name="$t('send.fileFields.atMost')"
    :told="megabytes ? `${megabytes} MB` : $t('send.fileFields.noLimit')"
  >
    <div class="line" :title="$t('send.fileFields.atMostHelp')">
      <NumberBox
        :label="$t('send.fileFields.atMost')"
        :value="megabytes"
        unit="MB"
        data-test="at-most"
        @set="sending.adjust({ most_bytes: Math.max(0, Math.round($event * 1e6)) })"
      />
      <span class="tiny quiet">{{ $t('send.fileFields.zeroIsAsMuch') }}</span>
    </div>
  </TrayItem>
  <ChoiceRow
    v-if="pictured && captionTrack(project.tracks)"
    :name="$t('send.sendBench.captions')"
    :choices="captions"
    :taken="settings.captions ?? 'seen'"
    @take="sending.adjust({ captions: $event })"
  />
  <TrayItem
    v-if="format?.can_clear"
    :name="$t('send.fileFields.clear')"
    :told="settings.clear ? $t('words.isOn') : $t('words.isOff')"
  >
    <SwitchField
      class="soft"
      :on="settings.clear ?? false"
      data-test="clear"
      @update:on="sending.adjust({ clear: $event })"
    >
      {{ $t('send.fileFields.staysClear') }}
    </SwitchField>
  </TrayItem>
  <CoverField v-if="format?.can_cover" :cover="settings.cover ?? null" />
  <RangeField v-if="format?.kind !== 'still'" />
</template>

<style scoped>
.line {
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 36px;
}
.name {
  min-width: 84px;
  color: var(--soft);
}
select {
  min-height: var(--touch);
  max-width: 420px;
}
</style>
