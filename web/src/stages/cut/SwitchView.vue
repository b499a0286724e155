<script setup lang="ts">
/** The switch nearest the playhead: both angles there, roll, transition, removal. */
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import type { MulticamClip } from '@/api/types'
import { anglesOf, stretchesOf } from '@/motion/angles'
import { useScreen } from '@/player/inject'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import { frameOf, frameTicks } from '@/time'
import TrayItem from '@/tray/TrayItem.vue'
import NearRow from './NearRow.vue'
import RollRow from './RollRow.vue'
import SidePictures, { type Side } from './SidePictures.vue'
import TransitionFields from './TransitionFields.vue'

const props = defineProps<{ clip: MulticamClip; locked: boolean }>()
const project = useProject()
const { player } = useScreen()

/** Switches that lie in the clip: each begins a stretch that another comes before. */
const stretches = computed(() => stretchesOf(props.clip))
const switches = computed(() =>
  stretches.value
    .filter((one) => one.at > 0 && one.from > (props.clip.start ?? 0))
    .map((one) => ({
      ...one,
      frame: frameOf(one.from, project.rate),
      before: stretches.value.find((other) => other.to === one.from),
      transition: props.clip.switches.find((other) => other.at === one.at)?.transition ?? null,
    })),
)
const nearest = computed(() =>
  switches.value.reduce<(typeof switches.value)[number] | null>(
    (best, one) =>
      !best || Math.abs(one.frame - player.frame.value) < Math.abs(best.frame - player.frame.value)
        ? one
        : best,
    null,
  ),
)
const place = computed(() => (nearest.value ? switches.value.indexOf(nearest.value) + 1 : 0))
const previous = computed(() => switches.value.findLast((one) => one.frame < player.frame.value))
const next = computed(() => switches.value.find((one) => one.frame > player.frame.value))
const told = computed(() =>
  switches.value.length ? String(`${place.value}/${switches.value.length}`) : '',
)

/** Both angles there, without the transition over them. */
const sides = computed<Side[]>(() => {
  const one = nearest.value
  if (!one) return []
  const half = Math.round((one.transition?.length ?? 0) / 2 / frameTicks(project.rate))
  const names = anglesOf(props.clip)
  const side = (frame: number, shown: number, angle: number): Side => {
    const name = names[angle]?.name ?? ''
    return { frame, shown, tag: name, title: t('cut.switchView.toFrame', { name }) }
  }
  return [
    side(one.frame - 1, one.frame - 1 - half, one.before?.angle ?? 0),
    side(one.frame, one.frame + half, one.angle),
  ]
})

const help = (by: number) =>
  t('cut.switchView.rolls', { way: by < 0 ? t('words.earlier') : t('words.later') }, Math.abs(by))
const of = () => ({ clip: props.clip.id ?? '', at: nearest.value?.at ?? 0 })

async function roll(frames: number) {
  const before = place.value
  await project.edit({ kind: 'roll_switch', ...of(), by: frames * frameTicks(project.rate) })
  const moved = switches.value[before - 1]
  if (moved) player.seek(moved.frame)
}

const cross = (transition: Record<string, unknown> | null, at: number | null) =>
  project.edit({
    kind: 'cross_switch',
    clip: props.clip.id ?? '',
    at,
    transition: transition as never,
  })
</script>

<template>
  <section class="switches tray-group" :aria-label="$t('cut.switchView.near')">
    <fieldset :disabled="locked">
      <TrayItem :name="$t('cut.switchView.switch')" :told="told">
        <NearRow
          :title="$t('cut.switchView.near')"
          :told="told"
          :before-name="$t('cut.switchView.before')"
          :next-name="$t('cut.switchView.next')"
          :before="previous"
          :next="next"
        />
        <p v-if="!nearest" class="tiny quiet mb-0">{{ $t('cut.switchView.none') }}</p>
        <SidePictures v-else :sides="sides" />
      </TrayItem>
      <template v-if="nearest">
        <TrayItem :name="$t('cut.joinView.roll')">
          <RollRow
            :label="$t('cut.switchView.rollIt')"
            :help="help"
            test="roll-switch"
            @roll="roll"
          >
            <BButton
              variant="secondary"
              data-test="remove-switch"
              :title="$t('cut.switchView.removeHelp')"
              @click="project.edit({ kind: 'remove_switch', ...of() })"
            >
              {{ $t('cut.switchView.remove') }}
            </BButton>
          </RollRow>
        </TrayItem>
        <TransitionFields :now="nearest.transition" @set="cross($event, nearest.at)">
          <BButton
            v-if="nearest.transition && switches.length > 1"
            variant="secondary"
            size="sm"
            @click="cross(nearest.transition as never, null)"
          >
            {{ $t('cut.switchView.everywhere') }}
          </BButton>
        </TransitionFields>
      </template>
    </fieldset>
  </section>
</template>

<style scoped>
.switches {
  overflow-y: auto;
  scrollbar-width: thin;
}
fieldset {
  display: grid;
  gap: 8px;
  min-width: 0;
}
</style>
