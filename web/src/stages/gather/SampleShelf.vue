<script setup lang="ts">
/** The stand-in for a device's gallery. */
import { BButton, BModal } from 'bootstrap-vue-next'
import { computed, ref, watch } from 'vue'
import IconMusic from '~icons/tabler/music'
import IconPlay from '~icons/tabler/player-play'
import IconStop from '~icons/tabler/player-stop'
import { client, need, type Schemas } from '@/api/client'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import { useLibrary } from '@/stores/library'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import { bytesLabel } from '@/time'

const open = defineModel<boolean>({ required: true })
const project = useProject()
const library = useLibrary()
const notes = useNotes()
const samples = ref<Schemas['Sample'][] | null>(null)
const chosen = ref<string[]>([])

type Part = 'all' | 'pictures' | 'sounds'
const PARTS: { id: Part; name: string; test: string }[] = [
  { id: 'all', name: t('gather.sampleShelf.everything'), test: 'shelf-all' },
  { id: 'pictures', name: t('gather.sampleShelf.pictures'), test: 'shelf-pictures' },
  { id: 'sounds', name: t('gather.sampleShelf.sounds'), test: 'shelf-sounds' },
]
const part = ref<Part>('all')
const shown = computed(() =>
  (samples.value ?? []).filter(
    (one) => part.value === 'all' || (one.kind === 'sound') === (part.value === 'sounds'),
  ),
)

/** The sound that is listened to. */
const playing = ref('')
const speaker = ref<HTMLAudioElement | null>(null)

function listen(name: string) {
  playing.value = playing.value === name ? '' : name
  if (!speaker.value) return
  speaker.value.pause()
  if (!playing.value) return
  speaker.value.src = `/api/samples/${name}/sound`
  speaker.value.play().catch(() => (playing.value = ''))
}

watch(open, async (now) => {
  playing.value = ''
  speaker.value?.pause()
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
    <ChoiceGroup
      class="parts"
      :label="$t('gather.sampleShelf.show')"
      :choices="PARTS"
      :taken="part"
      @take="part = $event"
    />
    <!-- eslint-disable-next-line vuejs-accessibility/media-has-caption -- sounds without words -->
    <audio ref="speaker" @ended="playing = ''" />
    <ul class="grid">
      <li v-for="one in shown" :key="one.name">
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
        <button
          v-if="one.kind === 'sound'"
          type="button"
          class="listen"
          :aria-label="
            playing === one.name
              ? $t('gather.sampleShelf.stop', { name: one.name })
              : $t('gather.sampleShelf.listen', { name: one.name })
          "
          :aria-pressed="playing === one.name"
          :data-test="`listen-${one.name}`"
          @click="listen(one.name)"
        >
          <IconStop v-if="playing === one.name" aria-hidden="true" />
          <IconPlay v-else aria-hidden="true" />
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
.grid > li {
  position: relative;
}
.parts {
  margin-bottom: 10px;
}
.listen {
  position: absolute;
  left: 6px;
  top: 62px;
  display: grid;
  place-items: center;
  width: 44px;
  height: 44px;
  border: 0;
  border-radius: 22px 22px 6px 22px;
  background: var(--text);
  color: #17141a;
}
.listen[aria-pressed='true'] {
  background: var(--accent);
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
