<script setup lang="ts">
/** A post: where it is, and what can be done about it. */
import { useNow } from '@vueuse/core'
import { computed, ref } from 'vue'
import IconDown from '~icons/tabler/arrow-bar-down'
import IconOpen from '~icons/tabler/external-link'
import IconTrash from '~icons/tabler/trash'
import IconWords from '~icons/tabler/pencil'
import { isUnfinished } from '@/jobs/job'
import JobRow from '@/jobs/JobRow.vue'
import { useExports } from '@/stores/exports'
import { usePosts, type Post } from '@/stores/posts'
import { t } from '@/texts'
import { coverAt } from './covers'
import DeedButtons from './DeedButtons.vue'
import PostDialog from './PostDialog.vue'
import { postText } from './posting'

const props = defineProps<{ post: Post }>()
const posts = usePosts()
const films = useExports()
const now = useNow({ interval: 1000 })
const wording = ref(false)

const film = computed(() => films.films.find((one) => one.id === props.post.film))
const picture = computed(() => film.value && coverAt(film.value, props.post.cover_at))
const text = computed(() => postText(props.post, now.value.getTime()))
const facts = computed(() => props.post.tags.map((tag) => `#${tag}`).join(' '))
const open = computed(() => isUnfinished(props.post.job))
/** Words are changed where the feed does not have it. */
const canReword = computed(
  () => props.post.there === 'refused' || (props.post.there === '' && film.value),
)

const deeds = computed(() => {
  const { id, there, title } = props.post
  const down = {
    test: 'post-down',
    name: t('send.postRow.takeDown', { title }),
    icon: IconDown,
    act: () => posts.takeDown(id),
  }
  const see = {
    test: 'post-see',
    name: t('send.postRow.see', { title }),
    icon: IconOpen,
    act: () => posts.visit(props.post.address.split('#')[1]),
  }
  const reword = {
    test: 'post-words',
    name: t('send.postRow.words', { title }),
    icon: IconWords,
    act: () => (wording.value = true),
  }
  const remove = {
    test: 'post-remove',
    name: t('send.postRow.remove', { title }),
    icon: IconTrash,
    act: () => posts.remove(id),
  }
  if (there === 'live' && !open.value) return [see, down]
  return [...(canReword.value ? [reword] : []), ...(open.value ? [] : [remove])]
})
</script>

<template>
  <li class="post" :data-post="post.there || post.job.state">
    <JobRow
      :job="post.job"
      :title="post.title"
      :facts="facts"
      :picture="picture"
      :text="text"
      @cancel="posts.takeDown(post.id)"
      @again="posts.act(post, 'again')"
    >
      <DeedButtons :deeds="deeds" />
    </JobRow>
    <ul v-if="post.there === 'refused'" class="reasons small">
      <li v-for="reason in post.reasons" :key="reason">{{ reason }}</li>
    </ul>
    <PostDialog v-if="film" v-model="wording" :film="film" :post="post" />
  </li>
</template>

<style scoped>
.post {
  background: var(--raised);
  border-radius: 12px 12px 3px 12px;
  padding: 8px;
}
.reasons {
  margin: 6px 0 0;
  padding-left: 72px;
}
</style>
