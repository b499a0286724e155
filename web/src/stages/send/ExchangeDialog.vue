<script setup lang="ts">
/** The film as a template: for each take that it uses another one may be chosen; all else stays. */
import { BModal } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import type { Take } from '@/api/types'
import { fileUrl, useLibrary } from '@/stores/library'
import { useProject } from '@/stores/project'
import { partOf, type TakePart } from '@/takes/placing'
import { usage } from '@/takes/usage'

const emit = defineEmits<{ closed: [] }>()
const project = useProject()
const library = useLibrary()
const open = ref(true)
/** Ids of the takes that are chosen, by the media of those that are used. */
const chosen = ref<Record<string, string>>({})

const used = computed(() => {
  const counts = usage(project.document?.tracks ?? [])
  return library.takes.filter((take) => counts.has(take.media))
})
/** What can stand where a take does: sounds for sounds, pictures for pictures. */
const isSound = (take: Take) => take.facts?.kind === 'sound'
const others = (take: Take) =>
  library.takes.filter(
    (one) => one.facts && one.media !== take.media && isSound(one) === isSound(take),
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
      <li v-for="take in used" :key="take.id">
        <img v-if="take.strip" :src="fileUrl(take, 'poster.jpg')" alt="" />
        <span v-else class="blank" />
        <label class="clip-text" :for="`exchange-${take.id}`">{{ take.name }}</label>
        <select
          :id="`exchange-${take.id}`"
          v-model="chosen[take.media]"
          class="form-select"
          :data-test="`exchange-${take.name}`"
        >
          <option :value="undefined">{{ $t('send.exchange.stays') }}</option>
          <option v-for="one in others(take)" :key="one.id" :value="one.id">{{ one.name }}</option>
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
