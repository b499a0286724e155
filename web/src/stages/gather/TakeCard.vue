<script setup lang="ts">
import { computed } from 'vue'
import IconAlert from '~icons/tabler/alert-triangle'
import IconMusic from '~icons/tabler/music'
import type { Take } from '@/api/types'
import { fileUrl } from '@/stores/library'
import { tagColour } from '@/api/kinds'
import { t } from '@/texts'
import { lengthLabel } from '@/time'

const props = defineProps<{
  take: Take
  chosen: boolean
  /** Place among several chosen, from 1; 0 for none. */
  number: number
  /** Clips on the timeline that use it. */
  uses: number
}>()
defineEmits<{ choose: [] }>()

const refused = computed(() => props.take.state === t('gather.takeCard.refused'))
const working = computed(() => props.take.state === 'waiting')
const percent = computed(() => Math.round((props.take.job?.share ?? 0) * 100))
const badge = computed(() => {
  const facts = props.take.facts
  if (refused.value) return 'refused'
  if (props.take.missing) return t('gather.takeCard.fileMissing')
  if (!facts) return t('gather.takeCard.looking')
  return facts.kind === 'still' ? t('api.kinds.still') : lengthLabel(facts.length)
})
const doing = computed(() => {
  if (props.take.archive) return t('gather.takeCard.unpacking', { percent: percent.value })
  return props.take.facts
    ? t('gather.takeCard.usableNowCopies', { percent: percent.value })
    : t('gather.takeCard.looking')
})
</script>

<template>
  <li>
    <button
      class="card-of"
      :class="{ chosen, refused }"
      :aria-pressed="chosen"
      :data-take="take.name"
      :data-state="take.state"
      @click="$emit('choose')"
    >
      <span class="picture" :class="take.facts?.kind">
        <img v-if="take.strip" :src="fileUrl(take, 'poster.jpg')" alt="" />
        <IconAlert v-else-if="refused" aria-hidden="true" />
        <IconMusic v-else-if="take.facts?.kind === 'sound'" aria-hidden="true" />
        <span class="badge-of" :class="{ bad: refused || take.missing }">{{ badge }}</span>
        <span v-if="number" class="number">{{ number }}</span>
        <span v-if="take.tag" class="tag" :style="{ background: tagColour(take.tag) }" />
      </span>
      <span class="name clip-text">{{ take.name }}</span>
      <span v-if="take.stars || uses" class="more tiny quiet">
        <span
          v-if="take.stars"
          :aria-label="$t('gather.takeCard.stars', take.stars)"
          class="stars"
          >{{ '★'.repeat(take.stars) }}</span
        >
        <span v-if="uses">{{ $t('gather.takeCard.used', { uses }) }}</span>
      </span>
      <span v-if="working" class="state">
        <span class="tiny quiet clip-text">{{ doing }}</span>
        <span class="meter" role="progressbar" :aria-valuenow="percent">
          <span :style="{ width: `${percent}%` }" />
        </span>
      </span>
    </button>
  </li>
</template>

<style scoped>
.card-of {
  display: block;
  width: 100%;
  padding: 0 0 4px;
  border: 2px solid transparent;
  background: var(--raised);
  color: var(--text);
  border-radius: 10px 10px 2px 10px;
  text-align: left;
}
.chosen {
  border-color: var(--accent);
}
.picture {
  position: relative;
  display: grid;
  place-items: center;
  height: 112px;
  border-radius: 10px 10px 0 0;
  overflow: hidden;
  background: #231f28;
  color: var(--soft);
}
.picture.sound {
  background: var(--sound);
  color: #d5f2ea;
}
.picture img {
  width: 100%;
  height: 100%;
  object-fit: cover;
}
.badge-of {
  position: absolute;
  right: 6px;
  bottom: 6px;
  background: #17141ad9;
  border-radius: 8px 8px 2px 8px;
  padding: 1px 7px;
  font-size: 12px;
  font-weight: 600;
}
.badge-of.bad {
  background: #a8322b;
}
.number {
  position: absolute;
  left: 6px;
  top: 6px;
  min-width: 24px;
  border-radius: 12px 12px 3px 12px;
  background: var(--accent);
  color: var(--ink);
  font-weight: 700;
  text-align: center;
}
.tag {
  position: absolute;
  left: 0;
  bottom: 0;
  width: 100%;
  height: 4px;
}
.more {
  display: flex;
  justify-content: space-between;
  padding: 0 8px;
}
.stars {
  color: #e0a63a;
  letter-spacing: 1px;
}
.name {
  display: block;
  padding: 6px 8px 0;
  font-size: 13px;
  font-weight: 600;
}
.state {
  display: block;
  padding: 0 8px;
}
.state > :first-child {
  display: block;
}
.meter {
  display: block;
  height: 4px;
  border-radius: 2px;
  background: var(--line);
}
.meter span {
  display: block;
  height: 100%;
  border-radius: 2px;
  background: var(--accent);
}
</style>
