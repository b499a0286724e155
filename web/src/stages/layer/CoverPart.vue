<script setup lang="ts">
/** A cover over what is tracked. */
import ToolLine from '@/controls/ToolLine.vue'
import { BButton } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import type { VideoClip } from '@/api/types'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import ChoiceSelect from '@/controls/ChoiceSelect.vue'
import ValueField from '@/controls/ValueField.vue'
import { MARGIN } from '@/motion/covers'
import { growth, type Found, type Moment } from '@/motion/tracks'
import { useLibrary } from '@/stores/library'
import { useCovering, type CoverHow, type CoverShape } from '@/picture/useCovering'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'
import type { Tracker } from '@/picture/useTracked'

const props = defineProps<{
  clip: VideoClip
  tracker: Tracker
  now: Moment | null
  found: Found | null
}>()

const HOWS = [
  { id: 'mosaic', name: t('layer.coverPart.mosaic') },
  { id: 'soft_blur', name: t('layer.coverPart.blur') },
  { id: 'plain', name: t('layer.coverPart.plain') },
  { id: 'picture', name: t('layer.coverPart.picture') },
] as const
const how = ref<CoverHow | 'picture'>('mosaic')
const SHAPES = [
  { id: 'ellipse', name: t('layer.coverPart.round') },
  { id: 'rectangle', name: t('layer.coverPart.square') },
] as const
const shape = ref<CoverShape>('ellipse')

const margin = ref(MARGIN)

const library = useLibrary()
const stills = computed(() => library.takes.filter(({ facts }) => facts?.kind === 'still'))
const chosen = ref('')
const still = computed(
  () => stills.value.find(({ media }) => media === chosen.value) ?? stills.value[0],
)
const picture = computed(() => {
  const facts = how.value === 'picture' ? still.value?.facts?.picture : null
  return facts && still.value
    ? { media: still.value.media, aspect: facts.width / facts.height }
    : null
})

const { ready, coverAt } = useCovering(() => props.clip)
const can = computed(() => ready.value && props.now && (how.value !== 'picture' || picture.value))
function cover() {
  if (!props.now) return
  const { quad } = props.now
  void coverAt(props.tracker.id ?? '', quad, {
    how: how.value === 'picture' ? 'plain' : how.value,
    shape: shape.value,
    margin: margin.value,
    picture: picture.value,
    grows: props.found ? growth(props.found, quad) : 1,
  })
}
</script>

<template>
  <TrayItem :name="$t('layer.coverPart.cover')">
    <ToolLine :name="$t('layer.coverPart.cover')">
      <ChoiceGroup
        :label="$t('layer.coverPart.how')"
        :choices="HOWS"
        :taken="how"
        @take="how = $event"
      />
    </ToolLine>
    <ToolLine :name="$t('layer.coverPart.form')">
      <ChoiceGroup
        :label="$t('layer.coverPart.form')"
        :choices="SHAPES"
        :taken="shape"
        @take="shape = $event"
      />
      <BButton
        variant="primary"
        :disabled="!can"
        :title="$t('layer.coverPart.help')"
        data-test="cover-it"
        @click="cover"
      >
        {{ $t('layer.coverPart.coverIt') }}
      </BButton>
    </ToolLine>
  </TrayItem>
  <TrayItem
    v-if="how === 'picture'"
    :name="$t('layer.coverPart.whichPicture')"
    :told="still?.name ?? ''"
  >
    <ToolLine
      :name="$t('layer.coverPart.whichPicture')"
      :label="$t('layer.coverPart.whichPicture')"
    >
      <ChoiceSelect
        v-if="still"
        :label="$t('layer.coverPart.whichPicture')"
        :choices="stills.map(({ media, name }) => ({ id: media, name }))"
        :taken="still.media"
        data-test="cover-picture"
        @take="chosen = $event"
      />
      <span v-else class="tiny quiet">{{ $t('layer.coverPart.noPicture') }}</span>
    </ToolLine>
  </TrayItem>
  <ValueField
    :label="$t('layer.coverPart.margin')"
    :help="$t('layer.coverPart.marginHelp')"
    :value="margin * 100"
    :low="0"
    :high="100"
    :step="1"
    :reset="MARGIN * 100"
    unit="%"
    data-test="cover-margin"
    @trying="margin = $event / 100"
    @set="margin = $event / 100"
  />
</template>
