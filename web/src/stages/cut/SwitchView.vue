<script setup lang="ts">
/** The switch nearest the playhead: both angles there, roll, transition, removal. */
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import IconBefore from '~icons/tabler/chevron-left'
import IconNext from '~icons/tabler/chevron-right'
import type { MulticamClip } from '@/api/types'
import { anglesOf, stretchesOf } from '@/motion/angles'
import { useScreen } from '@/player/inject'
import { useProject } from '@/stores/project'
import { frameOf, frameTicks } from '@/time'
import TrayItem from '@/tray/TrayItem.vue'
import TransitionFields from './TransitionFields.vue'

const props = defineProps<{ clip: MulticamClip; locked: boolean }>()
const project = useProject()
const { player } = useScreen()

const ROLLS = [-10, -1, 1, 10]
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

/** The last picture before and the first after, without the transition over them. */
const sides = computed(() => {
  const one = nearest.value
  if (!one) return []
  const half = Math.round((one.transition?.length ?? 0) / 2 / frameTicks(project.rate))
  const names = anglesOf(props.clip)
  return [
    { frame: one.frame - 1, shown: one.frame - 1 - half, angle: names[one.before?.angle ?? 0] },
    { frame: one.frame, shown: one.frame + half, angle: names[one.angle] },
  ]
})

function picture(frame: number): string {
  const query = new URLSearchParams({ ...project.look, long_side: '480' })
  return `${project.source.base}/frames/${frame}?${query}`
}

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
        <div class="line">
          <h2>{{ $t('cut.switchView.near') }}</h2>
          <span class="ways">
            <button
              type="button"
              class="btn btn-bare"
              :aria-label="$t('cut.switchView.before')"
              :disabled="!previous"
              @click="previous && player.seek(previous.frame)"
            >
              <IconBefore aria-hidden="true" />
            </button>
            <span class="small quiet">{{ told }}</span>
            <button
              type="button"
              class="btn btn-bare"
              :aria-label="$t('cut.switchView.next')"
              :disabled="!next"
              @click="next && player.seek(next.frame)"
            >
              <IconNext aria-hidden="true" />
            </button>
          </span>
        </div>
        <p v-if="!nearest" class="tiny quiet mb-0">{{ $t('cut.switchView.none') }}</p>
        <div v-else class="pair">
          <button
            v-for="side in sides"
            :key="side.frame"
            type="button"
            class="side"
            :aria-label="$t('cut.switchView.toFrame', { name: side.angle?.name ?? '' })"
            @click="player.seek(side.frame)"
          >
            <img :src="picture(side.shown)" alt="" />
            <span class="tag clip-text">{{ side.angle?.name }}</span>
          </button>
        </div>
      </TrayItem>
      <template v-if="nearest">
        <TrayItem :name="$t('cut.switchView.roll')">
          <div class="rolls" role="group" :aria-label="$t('cut.switchView.rollIt')">
            <span class="small quiet">{{ $t('cut.switchView.roll') }}</span>
            <BButton
              v-for="by in ROLLS"
              :key="by"
              variant="secondary"
              :data-test="`roll-switch${by}`"
              @click="roll(by)"
            >
              {{ by > 0 ? '+' : '−' }}{{ Math.abs(by) }}
            </BButton>
            <BButton
              variant="secondary"
              data-test="remove-switch"
              :title="$t('cut.switchView.removeHelp')"
              @click="project.edit({ kind: 'remove_switch', ...of() })"
            >
              {{ $t('cut.switchView.remove') }}
            </BButton>
          </div>
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
.line {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
.ways {
  display: flex;
  align-items: center;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
  min-height: 130px;
  flex: 1;
}
.side {
  position: relative;
  border: 0;
  padding: 0;
  background: var(--neutral);
  border-radius: 10px 10px 2px 10px;
  overflow: hidden;
}
.side img {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  object-fit: contain;
}
.tag {
  position: absolute;
  left: 6px;
  top: 6px;
  max-width: calc(100% - 12px);
  background: #17141ad9;
  color: var(--text);
  font-size: 12px;
  padding: 1px 8px;
  border-radius: 8px 8px 2px 8px;
}
.rolls {
  display: grid;
  grid-template-columns: auto repeat(4, 1fr) auto;
  align-items: center;
  gap: 5px;
}
.rolls .btn {
  padding: 2px 6px;
}
</style>
