<script setup lang="ts">
/** Making a layer clear by the colour of a screen, or by its brightness. */
import { BButton } from 'bootstrap-vue-next'
import { computed, ref, watch } from 'vue'
import IconPick from '~icons/tabler/color-picker'
import { client, need, type Schemas } from '@/api/client'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import ControlFields from '@/controls/ControlFields.vue'
import { valueAt } from '@/motion/keys'
import { useScreen } from '@/player/inject'
import CurveGraph from '@/controls/CurveGraph.vue'
import { useClipboard } from '@/stores/clipboard'
import { useKit } from '@/stores/kit'
import { useDrawing } from '@/stores/drawing'
import { useLayering } from '@/stores/layering'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import type { Layer } from '@/inhand/useLayer'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'
import SwitchField from '@/controls/SwitchField.vue'

const props = defineProps<{ layer: Layer }>()
const kit = useKit()
const notes = useNotes()
const project = useProject()
const layering = useLayering()
const drawing = useDrawing()
const clipboard = useClipboard()
const { player } = useScreen()

const key = computed(() => props.layer.clip.value?.key ?? null)
const kind = computed(() => key.value?.kind ?? 'none')
const KINDS = [
  { id: 'none', name: t('words.none') },
  { id: 'chroma', name: t('words.colour'), help: t('layer.keyPart.clearWhereTheColourOf') },
  { id: 'luma', name: t('layer.keyPart.brightness'), help: t('layer.keyPart.clearWhereItIsDark') },
] as const

const screens = ref<Schemas['ScreenOut'][]>([])
const asking = ref(false)
const where = () => ({
  params: { path: { id: project.id, revision: project.seen }, query: project.look },
})
const here = () => ({ clip: props.layer.clip.value?.id ?? '', frame: player.shown.value })

async function look() {
  asking.value = true
  try {
    const asked = client.POST('/api/projects/{id}/revisions/{revision}/screens', {
      ...where(),
      body: here(),
    })
    screens.value = (await need(asked)).screens
  } catch (error) {
    notes.problem(error)
  } finally {
    asking.value = false
  }
}

async function become(id: 'none' | 'chroma' | 'luma') {
  if (id === kind.value) return
  if (id !== 'chroma') {
    await props.layer.setWhole({ key: id === 'luma' ? { kind: 'luma' } : null })
    return
  }
  await look()
  const found = screens.value[0]
  if (!found) notes.told(t('layer.keyPart.noScreenWasFoundIn'))
  const level = found ? { colour: found.colour, clear_below: found.clear_below } : {}
  await props.layer.setWhole({ key: { kind: 'chroma', ...level } })
}

function takeScreen(screen: Schemas['ScreenOut']) {
  props.layer.set({ 'key/colour': screen.colour, 'key/clear_below': screen.clear_below })
}

watch(
  () => layering.tapped,
  async (spot) => {
    if (!spot || kind.value !== 'chroma') return
    layering.tapped = null
    try {
      const asked = client.POST('/api/projects/{id}/revisions/{revision}/colour', {
        ...where(),
        body: { ...here(), ...spot },
      })
      await props.layer.set({ 'key/colour': (await need(asked)).colour })
    } catch (error) {
      notes.problem(error)
    }
  },
)
watch(
  [kind, () => props.layer.clip.value?.id],
  () => {
    if (kind.value === 'chroma' && !screens.value.length) look()
  },
  { immediate: true },
)

const response = computed(() => {
  const one = key.value
  if (one?.kind !== 'chroma') return []
  return (valueAt(one.response, props.layer.local.value) as [number, number][] | undefined) ?? []
})
const whole = (values: Record<string, unknown>) =>
  Object.fromEntries(Object.entries(values).map(([name, value]) => [`key/${name}`, value]))

const copied = computed(() => clipboard.key)
const told = computed(() =>
  kind.value === 'none' ? '' : (KINDS.find((one) => one.id === kind.value)?.name ?? ''),
)
</script>

<template>
  <fieldset class="key" :disabled="layer.locked.value">
    <TrayItem :name="$t('layer.keyPart.key')" :told="told">
      <div class="line">
        <ChoiceGroup
          :label="$t('layer.keyPart.kindOfKey')"
          :choices="KINDS"
          :taken="kind"
          @take="become($event)"
        />
        <span class="grow" />
        <BButton
          v-if="key"
          size="sm"
          variant="secondary"
          :title="$t('layer.keyPart.toBePastedOntoOther')"
          @click="clipboard.key = key"
        >
          {{ $t('layer.keyPart.copy') }}
        </BButton>
        <BButton
          v-if="copied"
          size="sm"
          variant="secondary"
          :title="$t('layer.keyPart.theCopiedKeyOnAll')"
          @click="layer.setWhole({ key: copied })"
        >
          {{ $t('layer.keyPart.paste') }}
        </BButton>
      </div>
      <p v-if="!key" class="tiny quiet">
        {{ $t('layer.keyPart.aKeyMakesPartOf') }}
      </p>
    </TrayItem>
    <template v-if="key">
      <TrayItem v-if="key.kind === 'chroma'" :name="$t('layer.keyPart.screen')">
        <div class="line">
          <button
            v-for="screen in screens"
            :key="screen.colour"
            class="swatch"
            :class="{ here: screen.colour === key.colour }"
            :style="{ background: screen.colour }"
            :aria-label="
              $t('layer.keyPart.screenOfTheColourOf', {
                colour: screen.colour,
                share: Math.round(screen.share * 100),
              })
            "
            :title="
              $t('layer.keyPart.ofThePicture', {
                colour: screen.colour,
                share: Math.round(screen.share * 100),
              })
            "
            data-test="screen"
            @click="takeScreen(screen)"
          />
          <BButton
            size="sm"
            variant="secondary"
            :aria-pressed="drawing.tool === 'pick'"
            data-test="pick-screen"
            @click="drawing.put('pick')"
          >
            <IconPick aria-hidden="true" /> {{ $t('layer.keyPart.tapIt') }}
          </BButton>
          <BButton size="sm" variant="secondary" :disabled="asking" @click="look">
            {{ $t('layer.keyPart.lookAgain') }}
          </BButton>
        </div>
      </TrayItem>
      <TrayItem :name="$t('layer.keyPart.switches')">
        <div class="line">
          <SwitchField :on="key.on !== false" @update:on="layer.setWhole({ 'key/on': $event })">
            {{ $t('layer.keyPart.on') }}
          </SwitchField>
          <SwitchField
            :on="key.invert ?? false"
            data-test="key-invert"
            @update:on="layer.setWhole({ 'key/invert': $event })"
          >
            {{ $t('layer.keyPart.keepTheOtherPart') }}
          </SwitchField>
        </div>
      </TrayItem>
      <ControlFields
        :controls="kit.layer?.keys[key.kind] ?? []"
        :values="key as unknown as Record<string, unknown>"
        :local="layer.local.value"
        @trying="layer.tryWhole(whole($event))"
        @set="layer.setWhole(whole($event))"
      />
      <TrayItem v-if="key.kind === 'chroma'" :name="$t('layer.keyPart.edgeResponse')">
        <strong class="tiny quiet">{{ $t('layer.keyPart.edgeResponseFromClearTo') }}</strong>
        <CurveGraph
          :points="response"
          colour="#ff8a6b"
          :label="$t('layer.keyPart.edgeResponse')"
          @trying="layer.trying({ 'key/response': $event })"
          @set="layer.set({ 'key/response': $event })"
        />
      </TrayItem>
    </template>
  </fieldset>
</template>

<style scoped>
.key {
  display: grid;
  gap: 6px;
  min-width: 0;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
}
.grow {
  flex: 1;
}
.swatch {
  width: 38px;
  height: 38px;
  padding: 0;
  border: 2px solid var(--line);
  border-radius: 14px 14px 3px 14px;
}
.swatch.here {
  outline: 2px solid var(--accent);
  outline-offset: 2px;
}
p {
  margin: 0;
}
@media (pointer: coarse) {
  .swatch {
    width: 44px;
    height: 44px;
  }
}
</style>
