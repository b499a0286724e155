<script setup lang="ts">
/** What is posted with a film: words, cover, and when it is to be seen. */
import { BModal } from 'bootstrap-vue-next'
import { computed, ref, useId, watch } from 'vue'
import type { ExportOut } from '@/api/types'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import { usePosts, type Post } from '@/stores/posts'
import { t } from '@/texts'
import { coverAt, lasts } from './covers'
import { asLocal, tagsOf } from './posting'

const props = defineProps<{
  film: ExportOut
  /** A post whose words are changed. */
  post?: Post
}>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ begun: [] }>()
const posts = usePosts()
const id = useId()

const title = ref('')
const caption = ref('')
const tags = ref('')
const cover = ref(0)
const when = ref<'now' | 'later'>('now')
const moment = ref('')
const busy = ref(false)

function begin() {
  const { post, film } = props
  title.value = (post?.title ?? film.title).slice(0, 80)
  caption.value = post?.caption ?? ''
  tags.value = (post?.tags ?? []).join(' ')
  cover.value = post?.cover_at ?? lasts(film) / 3
  when.value = post?.shown_at ? 'later' : 'now'
  const ahead = new Date(Date.now() + 3_600_000)
  moment.value = asLocal(post?.shown_at ? new Date(post.shown_at) : ahead)
}
watch(open, (on) => on && begin(), { immediate: true })

const choices = [
  { id: 'now', name: t('send.postDialog.now'), test: 'post-now' },
  { id: 'later', name: t('send.postDialog.later'), test: 'post-later' },
] as const
const picture = computed(() => coverAt(props.film, cover.value))
const most = computed(() => Math.max(0, lasts(props.film) - 0.05))
const ready = computed(
  () =>
    title.value.trim() && tagsOf(tags.value).length <= 8 && (when.value === 'now' || moment.value),
)

async function send() {
  busy.value = true
  const words = {
    title: title.value.trim(),
    caption: caption.value.trim(),
    tags: tagsOf(tags.value),
    cover_at: cover.value,
    shown_at: when.value === 'later' ? new Date(moment.value).toISOString() : null,
  }
  const done = props.post
    ? await posts.reword(props.post.id, words)
    : await posts.start(props.film.id, words)
  if (done && props.post && ['failed', 'cancelled'].includes(props.post.job.state)) {
    await posts.act(props.post, 'again')
  }
  busy.value = false
  if (!done) return
  open.value = false
  emit('begun')
}
</script>

<template>
  <BModal
    v-model="open"
    :title="$t('send.postDialog.title')"
    :ok-title="$t('send.postDialog.post')"
    :cancel-title="$t('words.cancel')"
    cancel-variant="secondary"
    :ok-disabled="busy || !ready"
    :busy="busy"
    scrollable
    lazy
    @ok.prevent="send"
  >
    <div class="fields">
      <div class="cover">
        <img :src="picture" alt="" />
        <label class="small" :for="`${id}-cover`">{{ $t('send.postDialog.cover') }}</label>
        <input
          :id="`${id}-cover`"
          v-model.number="cover"
          class="form-range"
          type="range"
          min="0"
          :max="most"
          step="0.04"
          data-test="post-cover"
        />
      </div>
      <div class="words">
        <label class="small" :for="`${id}-title`">{{ $t('send.postDialog.name') }}</label>
        <input
          :id="`${id}-title`"
          v-model="title"
          class="form-control"
          maxlength="80"
          data-test="post-title"
          autocomplete="off"
        />
        <label class="small" :for="`${id}-caption`">{{ $t('send.postDialog.caption') }}</label>
        <textarea
          :id="`${id}-caption`"
          v-model="caption"
          class="form-control"
          rows="3"
          maxlength="600"
          data-test="post-caption"
        />
        <label class="small" :for="`${id}-tags`">{{ $t('send.postDialog.tags') }}</label>
        <input
          :id="`${id}-tags`"
          v-model="tags"
          class="form-control"
          maxlength="300"
          :placeholder="$t('send.postDialog.tagsLike')"
          data-test="post-tags"
          autocomplete="off"
          autocapitalize="none"
        />
      </div>
      <div class="when">
        <span class="small">{{ $t('send.postDialog.when') }}</span>
        <ChoiceGroup
          :label="$t('send.postDialog.when')"
          :choices="choices"
          :taken="when"
          @take="when = $event"
        />
        <input
          v-if="when === 'later'"
          v-model="moment"
          class="form-control"
          type="datetime-local"
          :aria-label="$t('send.postDialog.when')"
          data-test="post-moment"
        />
      </div>
    </div>
  </BModal>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: 112px minmax(0, 1fr);
  gap: 12px;
}
.cover,
.words {
  display: grid;
  gap: 4px;
  align-content: start;
}
.cover img {
  width: 112px;
  height: 176px;
  object-fit: contain;
  background: var(--neutral);
  border-radius: 8px 8px 2px 8px;
}
.when {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.when input {
  width: auto;
}
</style>
