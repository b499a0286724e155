<script setup lang="ts">
/** One effect to choose: its pictures one after another, its name, whether it is a favourite. */
import IconStar from '~icons/tabler/star'
import IconStarFilled from '~icons/tabler/star-filled'
import { computed, ref, watch } from 'vue'

const props = defineProps<{
  kind: { kind: string; title: string; help: string }
  /** Where its pictures are, in a row; nothing while others come first. */
  source: string
  favourite: boolean
  /** Width of a picture for a height of 1. */
  wide: number
}>()
const emit = defineEmits<{ take: []; favourite: []; loaded: [] }>()
const there = ref(false)
watch(
  () => props.source,
  () => (there.value = false),
)
/** Upright pictures are cut to a square, or the list would be long. */
const shape = computed(() => Math.max(1, Math.min(props.wide, 16 / 9)))

function came(well: boolean) {
  there.value = well
  emit('loaded')
}
</script>

<template>
  <li>
    <button
      class="take"
      :title="kind.help"
      :data-test="`effect-${kind.kind}`"
      @click="$emit('take')"
    >
      <span class="frame" :style="{ aspectRatio: String(shape) }">
        <img
          v-if="source"
          :class="{ there }"
          :src="source"
          :style="{ aspectRatio: String(wide * 8) }"
          alt=""
          @load="came(true)"
          @error="came(false)"
        />
      </span>
      <span class="name">{{ kind.title }}</span>
    </button>
    <button
      class="star btn btn-bare"
      :class="{ on: favourite }"
      :aria-pressed="favourite"
      :aria-label="$t('layer.effectChoice.favourite', { name: kind.title })"
      @click="$emit('favourite')"
    >
      <IconStarFilled v-if="favourite" aria-hidden="true" />
      <IconStar v-else aria-hidden="true" />
    </button>
  </li>
</template>

<style scoped>
li {
  position: relative;
  min-width: 0;
}
.take {
  display: block;
  width: 100%;
  padding: 0;
  border: 0;
  background: none;
  color: var(--text);
  text-align: left;
}
.frame {
  display: flex;
  align-items: center;
  overflow: hidden;
  background: var(--rail);
  border-radius: var(--fold);
}
.take:hover .frame,
.take:focus-visible .frame {
  outline: 2px solid var(--accent);
}
img {
  width: 800%;
  flex: none;
  opacity: 0;
  animation: past 1.2s steps(8, jump-none) infinite;
}
img.there {
  opacity: 1;
}
@keyframes past {
  to {
    transform: translateX(-87.5%);
  }
}
@media (prefers-reduced-motion: reduce) {
  img {
    animation: none;
    transform: translateX(-50%);
  }
}
.name {
  display: block;
  min-height: 2.4em;
  padding: 4px 30px 0 2px;
  line-height: 1.2;
  font-size: 0.82rem;
}
.star {
  position: absolute;
  right: -6px;
  bottom: 0;
  width: 40px;
  height: 40px;
  padding: 0;
  color: var(--soft);
}
.star.on {
  color: var(--accent);
}
</style>
