<script setup lang="ts">
/** Following things through a video: trackers, where they are not sure, what goes along, covers. */
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import type { VideoClip } from '@/api/types'
import ValueField from '@/controls/ValueField.vue'
import ToolLine from '@/controls/ToolLine.vue'
import type { Layer } from '@/inhand/useLayer'
import { jobText } from '@/jobs/job'
import { doubtsOf, type Reason } from '@/motion/tracks'
import { trimmedTo } from '@/picture/useTracked'
import { useScreen } from '@/player/inject'
import { useTracking } from '@/stores/tracking'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'
import CoverPart from './CoverPart.vue'
import FacesPart from './FacesPart.vue'
import FollowDraft from './FollowDraft.vue'
import FollowersPart from './FollowersPart.vue'
import PlaceSteps from './PlaceSteps.vue'
import SteadyPart from './SteadyPart.vue'
import { useFollowing } from './useFollowing'

const props = defineProps<{ layer: Layer; clip: VideoClip }>()
const store = useTracking()
const following = useFollowing(() => props.clip)
const { player } = useScreen()
const { trackers, tracker, found, along, tick, frameAt, job } = following

/** What can be followed, and how it is begun. */
const KINDS = [
  {
    id: 'moves',
    begin: () => following.begin('moves'),
    name: t('layer.followPart.point'),
    help: t('layer.followPart.pointHelp'),
  },
  {
    id: 'points',
    begin: following.beginSpots,
    name: t('layer.followPart.points'),
    help: t('layer.followPart.pointsHelp'),
  },
  {
    id: 'turns',
    begin: () => following.begin('turns'),
    name: t('layer.followPart.thing'),
    help: t('layer.followPart.thingHelp'),
  },
  {
    id: 'leans',
    begin: () => following.begin('leans'),
    name: t('layer.followPart.surface'),
    help: t('layer.followPart.surfaceHelp'),
  },
]

/** Where it is lost or not sure, by frames of the timeline. */
const doubts = computed(() =>
  found.value && tracker.value
    ? doubtsOf(found.value)
        .filter(({ from, to }) => within(from) || within(to))
        .map((one) => ({ ...one, from: frameAt(one.from), to: frameAt(one.to) }))
        .sort((a, b) => a.from - b.from)
    : [],
)
const WHY: Record<Reason, string> = {
  left: t('layer.followPart.whyLeft'),
  empty: t('layer.followPart.whyEmpty'),
  light: t('layer.followPart.whyLight'),
  blurred: t('layer.followPart.whyBlurred'),
  hidden: t('layer.followPart.whyHidden'),
}
/** What to do, and at a doubt why it is one. */
const help = computed(() => {
  if (!tracker.value) return t('layer.followPart.whatItDoes')
  const at = player.frame.value
  const here = doubts.value.find(({ from, to }) => from <= at && at <= to)
  const why = here?.why ? WHY[here.why] : ''
  return [why, t('layer.followPart.dragToPutRight')].filter(Boolean).join(' ')
})
const told = computed(() => {
  if (!found.value) return ''
  const all = doubts.value.length
  return all ? t('layer.followPart.doubts', { n: all }, all) : t('layer.followPart.sure')
})
const smooth = (seconds: number) => ({ [`trackers/${tracker.value?.id}/smooth`]: seconds })
/** How far aside what goes along lies, in hundredths of the picture's height. */
const ASIDE = [
  { axis: 0, label: t('layer.followPart.asideAcross') },
  { axis: 1, label: t('layer.followPart.asideDown') },
] as const
const asideOf = (axis: 0 | 1) => 100 * (tracker.value?.aside?.[axis] ?? 0)
function aside(axis: 0 | 1, hundredths: number) {
  const to = [...(tracker.value?.aside ?? [0, 0])]
  to[axis] = hundredths / 100
  return { [`trackers/${tracker.value?.id}/aside`]: to }
}
const within = (at: number) => !tracker.value || trimmedTo(tracker.value, at) === at
const trimmed = computed(() => tracker.value?.begins != null || tracker.value?.ends != null)
const trim = (values: Partial<Record<'begins' | 'ends', number | null>>) =>
  props.layer.setWhole(
    Object.fromEntries(
      Object.entries(values).map(([name, at]) => [`trackers/${tracker.value?.id}/${name}`, at]),
    ),
  )
function remove() {
  if (tracker.value) props.layer.removeItem(`trackers/${tracker.value.id}`)
  store.draft = null
}
</script>

<template>
  <fieldset class="following" :disabled="layer.locked.value">
    <TrayItem :name="$t('layer.followPart.trackers')" :told="told">
      <ToolLine v-if="job">
        <span class="small" role="status">{{ jobText(job) }}</span>
        <BButton
          v-if="following.stoppable.value"
          size="sm"
          variant="secondary"
          data-test="keep-this-far"
          @click="following.keepThisFar"
        >
          {{ $t('layer.followPart.keepThisFar') }}
        </BButton>
        <BButton size="sm" variant="secondary" @click="following.cancel">{{
          $t('words.cancel')
        }}</BButton>
      </ToolLine>
      <FollowDraft v-else-if="store.draft" :following="following" />
      <template v-else>
        <ToolLine :label="$t('layer.followPart.trackers')">
          <BButton
            v-for="one in trackers"
            :key="one.id"
            size="sm"
            variant="secondary"
            :aria-pressed="one.id === tracker?.id"
            data-test="tracker"
            @click="store.taken = one.id ?? ''"
          >
            {{ one.name || $t('layer.followPart.trackerWithout') }}
          </BButton>
          <template v-if="tracker && found">
            <span
              class="tiny"
              role="status"
              :class="{ amiss: doubts.length }"
              data-test="track-told"
              >{{ told }}</span
            >
            <PlaceSteps
              v-if="doubts.length"
              :clip="clip.id ?? ''"
              :places="doubts.map(({ from }) => from)"
              :before="$t('layer.followPart.doubtBefore')"
              :next="$t('layer.followPart.doubtNext')"
              :name="
                $t('layer.followPart.unsure', {
                  name: tracker.name || $t('layer.followPart.trackerWithout'),
                })
              "
              test="doubt"
            />
          </template>
        </ToolLine>
        <p class="tiny quiet mb-0" data-test="track-help">
          {{ help }}
        </p>
        <ToolLine :name="$t('layer.followPart.new')" :label="$t('layer.followPart.new')">
          <BButton
            v-for="one in KINDS"
            :key="one.id"
            size="sm"
            variant="secondary"
            :title="one.help"
            :data-test="`track-${one.id}`"
            @click="one.begin()"
          >
            {{ one.name }}
          </BButton>
        </ToolLine>
      </template>
    </TrayItem>
    <FacesPart :clip="clip" />
    <template v-if="tracker">
      <FollowersPart :layer="layer" :clip="clip" :tracker="tracker" />
      <CoverPart :clip="clip" :tracker="tracker" :now="along" :found="found" />
      <SteadyPart :layer="layer" :clip="clip" :tracker="tracker" :tick="tick" />
      <ValueField
        :label="$t('layer.followPart.smooth')"
        :help="$t('layer.followPart.smoothHelp')"
        :value="tracker.smooth ?? 0"
        :low="0"
        :high="2"
        :step="0.05"
        :reset="0"
        unit="s"
        data-test="track-smooth"
        @trying="layer.trying(smooth($event))"
        @set="layer.setWhole(smooth($event))"
      />
      <ValueField
        v-for="{ axis, label } in ASIDE"
        :key="axis"
        :label="label"
        :help="$t('layer.followPart.asideHelp')"
        :value="asideOf(axis)"
        :low="-50"
        :high="50"
        :step="0.5"
        :digits="1"
        :reset="0"
        signed
        unit="%"
        :data-test="`track-aside-${axis}`"
        @trying="layer.trying(aside(axis, $event))"
        @set="layer.setWhole(aside(axis, $event))"
      />
      <TrayItem
        :name="$t('layer.followPart.trim')"
        :told="trimmed ? $t('layer.followPart.trimmed') : ''"
      >
        <ToolLine :name="$t('layer.followPart.trim')" :label="$t('layer.followPart.trim')">
          <BButton
            size="sm"
            variant="secondary"
            :title="$t('layer.followPart.beginsHelp')"
            data-test="track-begins"
            @click="trim({ begins: tick })"
          >
            {{ $t('layer.followPart.begins') }}
          </BButton>
          <BButton
            size="sm"
            variant="secondary"
            :title="$t('layer.followPart.endsHelp')"
            data-test="track-ends"
            @click="trim({ ends: tick })"
          >
            {{ $t('layer.followPart.ends') }}
          </BButton>
          <BButton
            v-if="trimmed"
            size="sm"
            variant="secondary"
            data-test="track-whole"
            @click="trim({ begins: null, ends: null })"
          >
            {{ $t('layer.followPart.whole') }}
          </BButton>
        </ToolLine>
      </TrayItem>
      <TrayItem :name="$t('layer.followPart.remove')" last>
        <div>
          <BButton size="sm" variant="secondary" data-test="remove-tracker" @click="remove">
            {{ $t('layer.followPart.remove') }}
          </BButton>
        </div>
      </TrayItem>
    </template>
  </fieldset>
</template>

<style scoped>
.following {
  display: grid;
  gap: 6px;
  min-width: 0;
  align-content: start;
}
.amiss {
  color: #f0b64a;
}
</style>
