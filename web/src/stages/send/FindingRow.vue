<script setup lang="ts">
/** Something that was found: what, where, how it looks there; shown and mended from here. */
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import IconBad from '~icons/tabler/alert-octagon'
import IconDoubt from '~icons/tabler/alert-triangle'
import type { Step } from '@/api/types'
import { useScreen } from '@/player/inject'
import { useHand } from '@/stores/hand'
import { useProject } from '@/stores/project'
import { clockOf, frameOf } from '@/time'
import type { Finding } from './useChecks'

const props = defineProps<{ finding: Finding }>()
const project = useProject()
const hand = useHand()
const { player } = useScreen()

const frame = computed(() =>
  props.finding.at == null ? null : frameOf(props.finding.at, project.rate),
)
const picture = computed(
  () =>
    `/api/projects/${project.id}/revisions/${project.revision}/frames/${frame.value}?long_side=96`,
)

function show() {
  const { clip } = props.finding
  if (clip) hand.take(clip)
  if (frame.value !== null) player.seek(frame.value)
}
const mend = () => project.edit(props.finding.mend as unknown as Step)
</script>

<template>
  <li class="finding" :class="finding.grade" data-test="finding" :data-grade="finding.grade">
    <img v-if="frame !== null" :src="picture" alt="" class="picture" loading="lazy" />
    <div class="words">
      <div class="small">
        <IconBad
          v-if="finding.grade === 'bad'"
          class="sign"
          role="img"
          :aria-label="$t('send.findingRow.bad')"
        />
        <IconDoubt v-else class="sign" role="img" :aria-label="$t('send.findingRow.doubt')" />
        {{ finding.message }}
      </div>
      <div v-if="frame !== null" class="tiny quiet">
        {{ clockOf(frame, project.rate) }}
        <template v-if="finding.until">
          – {{ clockOf(frameOf(finding.until, project.rate), project.rate) }}
        </template>
      </div>
    </div>
    <BButton
      v-if="frame !== null || finding.clip"
      variant="secondary"
      size="sm"
      data-test="show-finding"
      @click="show"
    >
      {{ $t('send.findingRow.show') }}
    </BButton>
    <BButton
      v-if="finding.mend"
      variant="secondary"
      size="sm"
      data-test="mend-finding"
      @click="mend"
    >
      {{ $t('send.findingRow.mend') }}
    </BButton>
  </li>
</template>

<style scoped>
.finding {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 6px 8px;
  border-radius: 10px 10px 3px 10px;
  background: var(--raised);
}
.picture {
  width: 34px;
  height: 46px;
  object-fit: cover;
  border-radius: 6px 6px 2px 6px;
  flex: none;
  background: var(--neutral);
}
.words {
  flex: 1;
  min-width: 0;
}
.sign {
  margin: -2px 2px 0 0;
  color: #f2c14e;
}
.bad .sign {
  color: var(--accent);
}
.btn {
  flex: none;
  min-height: var(--touch);
}
</style>
