<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { BButton } from 'bootstrap-vue-next'
import IconMicrophone from '~icons/tabler/microphone'
import IconSamples from '~icons/tabler/library-photo'
import IconSeveral from '~icons/tabler/copy-plus'
import IconUpload from '~icons/tabler/upload'
import { useLibrary } from '@/stores/library'
import { useUploads } from '@/stores/uploads'
import { useProject } from '@/stores/project'
import ImportTray from './ImportTray.vue'
import { EVERYTHING, filtered, usage, type Filter } from './library'
import LibraryFilters from './LibraryFilters.vue'
import SampleShelf from './SampleShelf.vue'
import SeveralBar from './SeveralBar.vue'
import TakeCard from './TakeCard.vue'
import TakeViewer from './TakeViewer.vue'
import VoiceRecorder from './VoiceRecorder.vue'

const library = useLibrary()
const uploads = useUploads()
const chooser = ref<HTMLInputElement | null>(null)
const project = useProject()
const filter = ref<Filter>({ ...EVERYTHING })
const over = ref(false)
const several = ref(false)
const samples = ref(false)
const voice = ref(false)

const shown = computed(() => filtered(library.takes, filter.value))
const used = computed(() => usage(project.document?.tracks ?? []))

function choose(id: string) {
  if (!several.value) {
    library.chosen = id
    return
  }
  const ids = library.severalIds
  library.severalIds = ids.includes(id) ? ids.filter((one) => one !== id) : [...ids, id]
}

function begin(on: boolean) {
  several.value = on
  library.severalIds = []
}

onMounted(() => {
  library.refresh()
  if (!library.chosen) library.chosen = library.takes[0]?.id ?? ''
})

function chosen(event: Event) {
  const field = event.target as HTMLInputElement
  uploads.add([...(field.files ?? [])])
  field.value = ''
}

function dropped(event: DragEvent) {
  over.value = false
  uploads.add([...(event.dataTransfer?.files ?? [])])
}
</script>

<template>
  <div
    class="gather"
    :class="{ over }"
    @dragover.prevent="over = true"
    @dragleave.self="over = false"
    @drop.prevent="dropped"
  >
    <section class="panel takes" aria-label="Takes">
      <div class="line">
        <h2>Takes</h2>
        <span class="spacer" />
        <BButton
          variant="secondary"
          :aria-pressed="several"
          title="Choose several takes"
          data-test="several-takes"
          @click="begin(!several)"
        >
          <IconSeveral aria-hidden="true" /><span class="word">Several</span>
        </BButton>
        <BButton
          variant="secondary"
          title="Speak while the timeline plays"
          data-test="voice"
          @click="voice = true"
        >
          <IconMicrophone aria-hidden="true" /><span class="word">Voice</span>
        </BButton>
        <BButton
          variant="secondary"
          title="Pictures and sounds to try with"
          data-test="samples"
          @click="samples = true"
        >
          <IconSamples aria-hidden="true" /><span class="word">Samples</span>
        </BButton>
        <BButton variant="primary" data-test="bring-in" @click="chooser?.click()">
          <IconUpload aria-hidden="true" />Bring in
        </BButton>
        <input
          ref="chooser"
          type="file"
          multiple
          hidden
          accept="video/*,image/png,image/jpeg,image/webp,image/avif,image/gif,audio/*,.mkv,.mov,.flac,.opus"
          data-test="files"
          @change="chosen"
        />
      </div>
      <LibraryFilters v-model="filter" />
      <SeveralBar v-if="several" @done="begin(false)" />
      <ImportTray />
      <div v-if="library.loaded && !library.takes.length && !uploads.files.length" class="empty">
        <strong>Bring in your first takes</strong>
        <span>Videos, pictures and sounds; several at once, or drop them here.</span>
      </div>
      <p v-else-if="library.loaded && !shown.length" class="empty small">
        No take fits. Change the words or the filters.
      </p>
      <ul v-else class="grid">
        <TakeCard
          v-for="take in shown"
          :key="take.id"
          :take="take"
          :chosen="several ? library.severalIds.includes(take.id) : take.id === library.chosen"
          :number="several ? library.severalIds.indexOf(take.id) + 1 : 0"
          :uses="used.get(take.media) ?? 0"
          @choose="choose(take.id)"
        />
      </ul>
    </section>
    <VoiceRecorder v-if="voice" class="viewer" @done="voice = false" />
    <TakeViewer v-else class="viewer" />
    <SampleShelf v-model="samples" />
    <div v-if="over" class="drop">Drop the files to bring them in</div>
  </div>
</template>

<style scoped>
.gather {
  position: relative;
  display: grid;
  grid-template-columns: minmax(0, 1.55fr) minmax(230px, 1fr);
  gap: 12px;
  padding: 12px 14px;
  min-height: 0;
}
.takes {
  display: flex;
  flex-direction: column;
  gap: 10px;
  overflow: hidden;
}
.line {
  display: flex;
  align-items: center;
  gap: 6px;
  flex-wrap: wrap;
}
.spacer {
  flex: 1;
}
.line .btn {
  padding: 2px 10px;
}
@media (max-width: 1100px) {
  .word {
    display: none;
  }
}
.grid {
  list-style: none;
  margin: 0;
  padding: 2px;
  overflow-y: auto;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(106px, 1fr));
  gap: 10px;
  align-content: start;
  scrollbar-width: thin;
  scrollbar-color: #38313f transparent;
}
.drop {
  position: absolute;
  inset: 8px;
  display: grid;
  place-items: center;
  border: 2px dashed var(--accent);
  border-radius: 14px;
  background: #17141ae6;
  font-weight: 600;
  pointer-events: none;
  z-index: 5;
}
@media (max-width: 759px) {
  .gather {
    grid-template-columns: 1fr;
    grid-auto-rows: max-content;
    overflow-y: auto;
    padding-top: 20px;
  }
  .takes {
    overflow: visible;
  }
  .grid {
    overflow: visible;
  }
}
</style>
