<script setup lang="ts">
/** The films that are made, are being made, or could not be. */
import { onMounted } from 'vue'
import { useExports } from '@/stores/exports'
import { usePosts } from '@/stores/posts'
import FilmRow from './FilmRow.vue'

const films = useExports()
const posts = usePosts()
onMounted(() => Promise.all([films.refresh(), posts.refresh()]))
</script>

<template>
  <section class="queue" :aria-label="$t('send.filmList.films')">
    <div v-if="films.loaded && !films.films.length" class="empty">
      <strong>{{ $t('send.filmList.noFilmMadeYet') }}</strong>
      <span>{{ $t('send.filmList.eachFilmYouMakeStands') }}</span>
    </div>
    <ul v-else class="list">
      <FilmRow v-for="(film, at) in films.films" :key="film.id" :film="film" :later="at > 0" />
    </ul>
  </section>
</template>

<style scoped>
.queue {
  display: flex;
  flex-direction: column;
  gap: 10px;
  overflow: hidden;
  height: 100%;
}
.list {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 8px;
  overflow-y: auto;
  align-content: start;
}
</style>
