<script setup lang="ts">
/** Becoming known at the practice feed: by an account that is made now, or the key of one. */
import { BButton } from 'bootstrap-vue-next'
import { ref, useId } from 'vue'
import { usePosts } from '@/stores/posts'
import { useSession } from '@/stores/session'

const posts = usePosts()
const session = useSession()
/** By what one becomes known. */
const by = ref<'name' | 'key'>('name')
const given = ref({ name: session.name ?? '', key: '' })
const busy = ref(false)
const id = useId()

async function connect() {
  busy.value = true
  await posts.connect({ [by.value]: given.value[by.value].trim() })
  busy.value = false
}
</script>

<template>
  <div class="door" data-test="feed-door">
    <p class="small soft mb-0">{{ $t('send.feedDoor.what') }}</p>
    <form class="way" @submit.prevent="connect">
      <label class="small" :for="id">{{
        by === 'key' ? $t('send.feedDoor.key') : $t('send.feedDoor.name')
      }}</label>
      <input
        :id="id"
        v-model="given[by]"
        class="form-control"
        :type="by === 'key' ? 'password' : 'text'"
        :maxlength="by === 'key' ? 200 : 40"
        :data-test="`feed-${by}`"
        autocomplete="off"
      />
      <BButton
        variant="primary"
        type="submit"
        data-test="feed-connect"
        :disabled="busy || !given[by].trim()"
      >
        {{ by === 'key' ? $t('send.feedDoor.connect') : $t('send.feedDoor.open') }}
      </BButton>
    </form>
    <BButton
      variant="secondary"
      size="sm"
      class="other"
      data-test="feed-otherwise"
      @click="by = by === 'key' ? 'name' : 'key'"
    >
      {{ by === 'key' ? $t('send.feedDoor.byName') : $t('send.feedDoor.byKey') }}
    </BButton>
  </div>
</template>

<style scoped>
.door {
  display: grid;
  gap: 12px;
  max-width: 460px;
}
.way {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 4px 8px;
}
.way label {
  grid-column: 1 / -1;
}
.other {
  justify-self: start;
}
</style>
