<script setup lang="ts">
/** Layer: what makes up the frame, and the parts of the layer in hand. */
import { computed, onBeforeUnmount, watch, type Component } from 'vue'
import IconBefore from '~icons/tabler/chevron-left'
import IconNext from '~icons/tabler/chevron-right'
import BenchPair from '@/controls/BenchPair.vue'
import { isRetouched } from '@/api/types'
import { useScreen } from '@/player/inject'
import { useKit } from '@/stores/kit'
import { useDrawing } from '@/stores/drawing'
import { useLayering, type LayerPart } from '@/stores/layering'
import { useNotes } from '@/stores/notes'
import { t } from '@/texts'
import CutoutPart from './CutoutPart.vue'
import EffectsPart from './EffectsPart.vue'
import FollowPart from './FollowPart.vue'
import FillEditor from './FillEditor.vue'
import KeyPart from './KeyPart.vue'
import LayerList from './LayerList.vue'
import LayerTools from './LayerTools.vue'
import LookPart from './LookPart.vue'
import MasksPart from './MasksPart.vue'
import RetouchPart from './RetouchPart.vue'
import ShapePart from './ShapePart.vue'
import TextPart from './TextPart.vue'
import { useLayer } from '@/inhand/useLayer'

const kit = useKit()
const notes = useNotes()
const layering = useLayering()
const drawing = useDrawing()
const layer = useLayer()
const { player } = useScreen()

kit.open().catch((error: unknown) => notes.problem(error))
onBeforeUnmount(() => {
  layering.leave()
  drawing.tool = ''
  player.ask({})
})

/** What a layer itself is made of, by its kind. */
const CONTENT: Record<string, { name: string; part: Component; more: object }> = {
  text: { name: t('layer.layerBench.text'), part: TextPart, more: {} },
  shape: { name: t('layer.layerBench.shape'), part: ShapePart, more: {} },
  solid: {
    name: t('layer.layerBench.fill'),
    part: FillEditor,
    more: { label: t('layer.layerBench.fill'), path: 'fill' },
  },
}
const content = computed(() => CONTENT[layer.clip.value?.kind ?? ''])
const retouched = computed(() => (isRetouched(layer.clip.value) ? layer.clip.value : null))
const parts = computed(() => {
  const kind = layer.clip.value?.kind ?? ''
  const named = (id: LayerPart, name: string) => ({ id, name, test: `layer-part-${id}` })
  return [
    named('look', t('layer.layerBench.laid')),
    ...(content.value ? [named('content', content.value.name)] : []),
    ...(kind === 'adjustment' ? [] : [named('key', t('layer.layerBench.key'))]),
    named('masks', t('words.masks')),
    named('effects', t('words.effects')),
    ...(retouched.value ? [named('retouch', t('layer.layerBench.retouch'))] : []),
    ...(kind === 'still' ? [named('cutout', t('layer.layerBench.cutout'))] : []),
    ...(kind === 'video' ? [named('follow', t('layer.layerBench.follow'))] : []),
  ]
})
const part = computed(() =>
  parts.value.some((one) => one.id === layering.part) ? layering.part : 'look',
)

function take(id: LayerPart) {
  layering.part = id
  drawing.tool = ''
}

watch(
  () => layer.clip.value?.id,
  (now, before) => {
    if (!before || now === before) return
    layering.mask = 0
    drawing.tool = ''
    if (!parts.value.some((one) => one.id === layering.part)) layering.part = 'look'
  },
)
watch(
  () => (layering.matte ? (layer.clip.value?.id ?? '') : ''),
  (matte) => player.ask(matte ? { matte } : {}),
)
</script>

<template>
  <BenchPair
    :label="$t('layer.layerBench.theLayerInHand')"
    :left="$t('layer.layerBench.layers')"
    left-first
    :parts="parts"
    :part="part"
    :filled="Boolean(layer.clip.value)"
    @take="take"
  >
    <template #left><LayerList /></template>
    <template #tools>
      <span v-if="!layer.over.value" class="tiny quiet">{{
        $t('layer.layerBench.notAtThePlayhead')
      }}</span>
      <span class="grow" />
      <template v-if="layer.hasKeys.value">
        <button
          class="btn btn-bare"
          :aria-label="$t('words.toTheKeyBefore')"
          @click="layer.jump(-1)"
        >
          <IconBefore aria-hidden="true" />
        </button>
        <button class="btn btn-bare" :aria-label="$t('words.toTheNextKey')" @click="layer.jump(1)">
          <IconNext aria-hidden="true" />
        </button>
      </template>
      <LayerTools />
    </template>
    <LookPart v-if="part === 'look'" :layer="layer" />
    <component
      :is="content.part"
      v-else-if="part === 'content' && content"
      v-bind="content.more"
      :layer="layer"
    />
    <KeyPart v-else-if="part === 'key'" :layer="layer" />
    <MasksPart v-else-if="part === 'masks'" :layer="layer" />
    <FollowPart
      v-else-if="part === 'follow' && layer.clip.value?.kind === 'video'"
      :layer="layer"
      :clip="layer.clip.value"
    />
    <RetouchPart v-else-if="part === 'retouch' && retouched" :layer="layer" :clip="retouched" />
    <CutoutPart
      v-else-if="part === 'cutout' && layer.clip.value?.kind === 'still'"
      :layer="layer"
      :clip="layer.clip.value"
    />
    <EffectsPart v-else :layer="layer" />
    <template #empty>
      <strong>{{ $t('layer.layerBench.noLayerInHand') }}</strong>
      <span>
        {{ $t('layer.layerBench.tapALayerInThe') }}
      </span>
    </template>
  </BenchPair>
</template>
