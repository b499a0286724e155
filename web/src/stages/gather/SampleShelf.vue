<script setup lang="ts">
/** The stand-in for a device's gallery. */
import { BButton, BModal } from 'bootstrap-vue-next'
import { ref, watch } from 'vue'
import IconMusic from '~icons/tabler/music'
import { client, need, type Schemas } from '@/api/client'
import { useLibrary } from '@/stores/library'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { bytesLabel } from '@/time'

const open = defineModel<boolean>({ required: true })
const project = useProject()
const library = useLibrary()
const notes = useNotes()
const samples = ref<Schemas['Sample'][] | null>(null)
const chosen = ref<string[]>([])

watch(open, async (now) => {
  if (!now) return
  chosen.value = []
  try {
    samples.value = await need(client.GET('/api/samples'))
  } catch (error) {
    notes.problem(error)
  }
})

function choose(name: string) {
  chosen.value = chosen.value.includes(name)
    ? chosen.value.filter((one) => one !== name)
    : [...chosen.value, name]
}

async function bring() {
  try {
    const path = { id: project.id }
    const body = { names: chosen.value }
    await need(client.POST('/api/projects/{id}/samples', { params: { path }, body }))
    await library.refresh()
  } catch (error) {
    notes.problem(error)
  }
}
</script>

<template>
  <BModal
    v-model="open"
    :title="$t('gather.sampleShelf.sampleShelf')"
    size="lg"
    scrollable
    :cancel-title="$t('words.cancel')"
    cancel-variant="secondary"
    @ok="bring"
  >
    <p class="small quiet">
      {{ $t('gather.sampleShelf.standsInForADevices') }}
    </p>
    <p v-if="samples && !samples.length" class="empty">
      {{ $t('gather.sampleShelf.theShelfIsEmptyThe') }}
    </p>
    <ul class="grid">
      <li v-for="one in samples ?? []" :key="one.name">
        <button
          type="button"
          class="sample"
          :class="{ chosen: chosen.includes(one.name) }"
          :aria-pressed="chosen.includes(one.name)"
          :data-test="`sample-${one.name}`"
          @click="choose(one.name)"
        >
          <span class="picture">
            <IconMusic v-if="one.kind === 'sound'" aria-hidden="true" />
            <img v-else :src="`/api/samples/${one.name}/picture`" alt="" loading="lazy" />
            <span v-if="chosen.includes(one.name)" class="number">{{
              chosen.indexOf(one.name) + 1
            }}</span>
          </span>
          <span class="clip-text small">{{ one.name }}</span>
          <span class="tiny quiet">{{ one.kind }} · {{ bytesLabel(one.bytes) }}</span>
        </button>
      </li>
    </ul>
    <template #ok="{ ok }">
      <BButton variant="primary" :disabled="!chosen.length" data-test="samples-bring" @click="ok()">
        {{ $t('gather.sampleShelf.bringIn', { count: chosen.length || '' }) }}
      </BButton>
    </template>
  </BModal>
</template>

<style scoped>
.grid {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(110px, 1fr));
  gap: 10px;
}
.sample {
  display: grid;
  width: 100%;
  padding: 0 0 6px;
  border: 2px solid transparent;
  border-radius: var(--fold);
  background: var(--raised);
  color: var(--text);
  text-align: left;
}
.sample > :not(.picture) {
  padding: 0 8px;
}
.sample.chosen {
  border-color: var(--accent);
}
.picture {
  position: relative;
  display: grid;
  place-items: center;
  height: 110px;
  border-radius: 8px 8px 0 0;
  overflow: hidden;
  background: #231f28;
}
img {
  width: 100%;
  height: 100%;
  object-fit: cover;
}
.number {
  position: absolute;
  right: 6px;
  top: 6px;
  min-width: 24px;
  border-radius: 12px 12px 3px 12px;
  background: var(--accent);
  color: var(--ink);
  font-weight: 700;
  text-align: center;
}
</style>
