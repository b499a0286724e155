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

interface Part {
  id: LayerPart
  name: string
  test: string
  is: Component
  /** What it is told besides the layer. */
  more: object
}
const named = (id: LayerPart, name: string, is: Component, more: object = {}): Part => ({
  id,
  name,
  test: `layer-part-${id}`,
  is,
  more,
})
const parts = computed(() => {
  const clip = layer.clip.value
  const content = CONTENT[clip?.kind ?? '']
  const found = [named('look', t('layer.layerBench.laid'), LookPart)]
  if (content) found.push(named('content', content.name, content.part, content.more))
  if (clip?.kind !== 'adjustment') found.push(named('key', t('layer.layerBench.key'), KeyPart))
  found.push(named('masks', t('words.masks'), MasksPart))
  found.push(named('effects', t('words.effects'), EffectsPart))
  if (isRetouched(clip))
    found.push(named('retouch', t('layer.layerBench.retouch'), RetouchPart, { clip }))
  if (clip?.kind === 'still' || clip?.kind === 'video')
    found.push(named('cutout', t('layer.layerBench.cutout'), CutoutPart, { clip }))
  if (clip?.kind === 'video')
    found.push(named('follow', t('layer.layerBench.follow'), FollowPart, { clip }))
  return found
})
const part = computed(() => parts.value.find(({ id }) => id === layering.part) ?? parts.value[0])

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
    :part="part?.id ?? 'look'"
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
    <component :is="part.is" v-if="part" :key="part.id" :layer="layer" v-bind="part.more" />
    <template #empty>
      <strong>{{ $t('layer.layerBench.noLayerInHand') }}</strong>
      <span>
        {{ $t('layer.layerBench.tapALayerInThe') }}
      </span>
    </template>
  </BenchPair>
</template>
