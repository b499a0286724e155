<script setup lang="ts">
/** The practice feed: being known there, and what is posted. */
import { BButton } from 'bootstrap-vue-next'
import { onBeforeUnmount, onMounted } from 'vue'
import IconVisit from '~icons/tabler/external-link'
import { usePosts } from '@/stores/posts'
import FeedDoor from './FeedDoor.vue'
import PostRow from './PostRow.vue'

/** Milliseconds between two questions how often posts were seen. */
const EVERY = 10_000

const posts = usePosts()
let timer = 0
onMounted(async () => {
  await posts.refresh()
  void posts.look()
  timer = window.setInterval(() => document.hidden || void posts.look(), EVERY)
})
onBeforeUnmount(() => window.clearInterval(timer))
</script>

<template>
  <section class="feed" :aria-label="$t('send.sendBench.feed')">
    <FeedDoor v-if="posts.loaded && !posts.connected" />
    <div v-else-if="posts.connected" class="line small">
      <span class="soft grow clip-text">
        {{ $t('send.feedPart.youAre', { name: posts.feed?.name ?? '' }) }}
      </span>
      <BButton variant="secondary" size="sm" data-test="visit-feed" @click="posts.visit()">
        <IconVisit aria-hidden="true" /> {{ $t('send.feedPart.visit') }}
      </BButton>
      <BButton variant="secondary" size="sm" data-test="leave-feed" @click="posts.leave()">
        {{ $t('send.feedPart.leave') }}
      </BButton>
    </div>
    <div v-if="posts.connected && !posts.posts.length" class="empty">
      <strong>{{ $t('send.feedPart.nothing') }}</strong>
      <span>{{ $t('send.feedPart.how') }}</span>
    </div>
    <ul v-if="posts.posts.length" class="list">
      <PostRow v-for="post in posts.posts" :key="post.id" :post="post" />
    </ul>
  </section>
</template>

<style scoped>
.feed {
  display: flex;
  flex-direction: column;
  gap: 10px;
  height: 100%;
  overflow-y: auto;
  scrollbar-width: thin;
}
.feed > * {
  flex: none;
}
.line {
  display: flex;
  align-items: center;
  gap: 8px;
}
.grow {
  flex: 1;
  min-width: 0;
}
.list {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 8px;
}
</style>
