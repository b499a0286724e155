<script setup lang="ts">
/** Up to five stars; the last one set again takes it away. */
import IconOff from '~icons/tabler/star'
import IconOn from '~icons/tabler/star-filled'

const stars = defineModel<number>({ required: true })
</script>

<template>
  <span class="stars" role="group" :aria-label="$t('gather.starRow.stars')">
    <button
      v-for="number in 5"
      :key="number"
      type="button"
      :aria-label="$t('gather.starRow.countOfStars', number)"
      :aria-pressed="stars >= number"
      :data-test="`star-${number}`"
      @click="stars = stars === number ? number - 1 : number"
    >
      <component :is="stars >= number ? IconOn : IconOff" aria-hidden="true" />
    </button>
  </span>
</template>

<style scoped>
.stars {
  display: inline-flex;
}
button {
  width: 28px;
  min-height: var(--touch);
  padding: 0;
  border: 0;
  background: none;
  color: #e0a63a;
}
</style>
