<script setup lang="ts">
/** All effects, each as a small moving picture of what it would do; found by family or by words. */
import { BModal } from 'bootstrap-vue-next'
import { computed, ref, watch } from 'vue'
import type { Layer } from '@/inhand/useLayer'
import { useScreen } from '@/player/inject'
import { useKit } from '@/stores/kit'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import { FAVOURITES, found, type Family } from './effects'
import EffectTile from './EffectTile.vue'
import { useFavourites } from './useFavourites'

const props = defineProps<{ layer: Layer }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ take: [kind: string] }>()
const kit = useKit()
const project = useProject()
const { player } = useScreen()
const { favourites, turn } = useFavourites()

const wanted = ref('')
const family = ref<Family | ''>('')
const offered = computed(() => kit.layer?.effects ?? [])
const kinds = computed(() => found(offered.value, wanted.value, family.value, favourites.value))
const FAMILIES: readonly { id: Family | ''; name: string }[] = [
  { id: '', name: t('layer.effectChoice.family.all') },
  { id: FAVOURITES, name: t('layer.effectChoice.family.favourites') },
  { id: 'soft', name: t('layer.effectChoice.family.soft') },
  { id: 'light', name: t('layer.effectChoice.family.light') },
  { id: 'colour', name: t('layer.effectChoice.family.colour') },
  { id: 'form', name: t('layer.effectChoice.family.form') },
  { id: 'print', name: t('layer.effectChoice.family.print') },
  { id: 'time', name: t('layer.effectChoice.family.time') },
]
/** Those in which something is offered. */
const families = computed(() =>
  FAMILIES.filter(({ id }) => found(offered.value, '', id, favourites.value).length),
)

/** Pictures are asked for one after another: the film's own picture has its turn between them. */
const loaded = ref(new Set<string>())
const next = computed(() => kinds.value.find(({ kind }) => !loaded.value.has(kind))?.kind)
const asked = (kind: string) => loaded.value.has(kind) || kind === next.value
const page = computed(() => {
  const query = { ...project.look, clip: props.layer.ids.value[0] ?? '', frame: player.shown.value }
  return new URLSearchParams(query as unknown as Record<string, string>).toString()
})
const wide = computed(() => {
  const canvas = project.document?.canvas
  return canvas ? canvas.width / canvas.height : 1
})
const source = (kind: string) => `${project.source.base}/effects/${kind}.jpg?${page.value}`
watch([open, page], () => loaded.value.clear())

function take(kind: string) {
  open.value = false
  emit('take', kind)
}

function enter() {
  const [first] = kinds.value
  if (first) take(first.kind)
}

function shown() {
  wanted.value = ''
  family.value = ''
}
</script>

<template>
  <BModal
    v-model="open"
    :title="t('layer.effectsPart.addAnEffect')"
    size="lg"
    no-footer
    scrollable
    lazy
    @show="shown"
  >
    <input
      v-model="wanted"
      type="search"
      data-first
      class="form-control"
      :placeholder="$t('layer.effectChoice.search')"
      :aria-label="$t('layer.effectsPart.addAnEffectSearch')"
      data-test="search-effect"
      @keydown.enter.stop.prevent="enter"
    />
    <div class="families" role="group" :aria-label="$t('layer.effectChoice.families')">
      <button
        v-for="one in families"
        :key="one.id"
        class="btn btn-sm"
        :class="family === one.id ? 'btn-primary' : 'btn-secondary'"
        :aria-pressed="family === one.id"
        :data-test="`family-${one.id || 'all'}`"
        @click="family = one.id"
      >
        {{ one.name }}
      </button>
    </div>
    <ul class="tiles" data-test="found-effects">
      <EffectTile
        v-for="one in kinds"
        :key="one.kind"
        :kind="one"
        :source="asked(one.kind) ? source(one.kind) : ''"
        :favourite="favourites.includes(one.kind)"
        :wide="wide"
        @take="take(one.kind)"
        @favourite="turn(one.kind)"
        @loaded="loaded.add(one.kind)"
      />
    </ul>
    <p v-if="!kinds.length" class="quiet" data-test="no-effect">
      {{ $t('layer.effectsPart.noEffectIsCalledThat') }}
    </p>
  </BModal>
</template>

<style scoped>
.families {
  display: flex;
  gap: 6px;
  margin: 10px 0;
  overflow-x: auto;
}
.families .btn {
  flex: none;
  min-height: var(--touch);
}
.tiles {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(100px, 1fr));
  gap: 10px;
}
p {
  margin: 20px 0;
  text-align: center;
}
</style>
