<script setup lang="ts">
/** The film as a template: for each take that it uses another one may be chosen; all else stays. */
import { BModal } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import type { Take } from '@/api/types'
import { fileUrl, useLibrary } from '@/stores/library'
import { useProject } from '@/stores/project'
import { partOf, type TakePart } from '@/takes/placing'
import { usedFiles } from '@/takes/usage'

const emit = defineEmits<{ closed: [] }>()
const project = useProject()
const library = useLibrary()
const open = ref(true)
/** Ids of the takes that are chosen, by the media of those that are used. */
const chosen = ref<Record<string, string>>({})

/** What the film uses; of takes of another project no more is known than its clips tell. */
const used = computed(() =>
  usedFiles(project.document?.tracks ?? []).map((one) => {
    const take = library.takes.find(({ media }) => media === one.media)
    return { ...one, take, name: take?.name ?? one.name }
  }),
)
/** What can stand where a take does: sounds for sounds, pictures for pictures. */
const isSound = (take: Take) => take.facts?.kind === 'sound'
const others = ({ media, take, sounds }: (typeof used.value)[number]) =>
  library.takes.filter(
    (one) => one.facts && one.media !== media && isSound(one) === (take ? isSound(take) : sounds),
  )
const pairs = computed(() =>
  Object.entries(chosen.value).flatMap(([media, id]) => {
    const found = library.takes.find((one) => one.id === id)
    const take = found && partOf(found)
    return take ? [{ media, take }] : []
  }),
)

async function exchange() {
  const step: { kind: 'exchange_takes'; pairs: { media: string; take: TakePart }[] } = {
    kind: 'exchange_takes',
    pairs: pairs.value,
  }
  if (await project.edit(step)) open.value = false
}
</script>

<template>
  <BModal
    v-model="open"
    :title="$t('send.exchange.title')"
    :ok-title="$t('send.exchange.do')"
    :cancel-title="$t('words.cancel')"
    cancel-variant="secondary"
    :ok-disabled="!pairs.length"
    scrollable
    @ok.prevent="exchange"
    @hidden="emit('closed')"
  >
    <p class="small soft">{{ $t('send.exchange.what') }}</p>
    <p v-if="!used.length" class="mb-0">{{ $t('send.exchange.nothing') }}</p>
    <ul class="list">
      <li v-for="one in used" :key="one.media">
        <img v-if="one.take?.strip" :src="fileUrl(one.take, 'poster.jpg')" alt="" />
        <span v-else class="blank" />
        <label class="clip-text" :for="`exchange-${one.media}`">{{ one.name }}</label>
        <select
          :id="`exchange-${one.media}`"
          v-model="chosen[one.media]"
          class="form-select"
          :data-test="`exchange-${one.name}`"
        >
          <option :value="undefined">{{ $t('send.exchange.stays') }}</option>
          <option v-for="other in others(one)" :key="other.id" :value="other.id">
            {{ other.name }}
          </option>
        </select>
      </li>
    </ul>
  </BModal>
</template>

<style scoped>
.list {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 8px;
}
.list li {
  display: grid;
  grid-template-columns: 40px minmax(0, 1fr) minmax(0, 1fr);
  gap: 10px;
  align-items: center;
}
.list img,
.blank {
  width: 40px;
  height: 56px;
  object-fit: cover;
  border-radius: 6px 6px 2px 6px;
  background: var(--neutral);
}
</style>
