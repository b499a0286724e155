<script setup lang="ts">
/** The effects of a layer, in order: added from a list, switched, ordered, mixed, copied, kept. */
import { BDropdown, BDropdownItemButton } from 'bootstrap-vue-next'
import { storeToRefs } from 'pinia'
import { computed, ref } from 'vue'
import IconPlus from '~icons/tabler/plus'
import type { Effect } from '@/api/types'
import { usePhone } from '@/look/phone'
import { omitted } from '@/motion/props'
import { useClipboard } from '@/stores/clipboard'
import { useLayering } from '@/stores/layering'
import { useKit, type Preset } from '@/stores/kit'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'
import EffectChoice from './EffectChoice.vue'
import EffectFields from './EffectFields.vue'
import { othersOf, readsLayer } from './effects'
import type { Layer } from '@/inhand/useLayer'
import NameDialog from '@/controls/NameDialog.vue'
import PartRows from '@/controls/PartRows.vue'

const props = defineProps<{ layer: Layer }>()
const kit = useKit()
const notes = useNotes()
const project = useProject()
const clipboard = useClipboard()
const { phone } = usePhone()

const effects = computed<Effect[]>(() => props.layer.clip.value?.effects ?? [])
const { effect: open } = storeToRefs(useLayering())
/** On a phone the values of one effect stand among the controls. */
const opened = computed(() => effects.value.find((one) => one.id === open.value))
const choosing = ref(false)

async function add(kind: string) {
  const clips = props.layer.ids.value
  const chosen = kit.layer?.effects.find((one) => one.kind === kind)
  const [below] = chosen && readsLayer(chosen) ? othersOf(project.tracks, clips) : []
  const parts = [{ kind, ...(below ? { layer: below.id } : {}) }] as never
  const { made } = await project.make({ kind: 'add_parts', clips, list: 'effects', parts })
  if (made[0]) open.value = made[0]
}

const parts = (row: readonly Effect[]) => row.map((one) => omitted(one, 'id'))

function copy(row: readonly Effect[]) {
  clipboard.effects = [...row]
  notes.told(t('layer.effectsPart.effectsCopied', row.length))
}
const titleOf = (one: Effect) =>
  kit.layer?.effects.find(({ kind }) => kind === one.kind)?.title ?? one.kind

const naming = ref(false)
const name = ref('')

async function keep() {
  try {
    await kit.keepPreset(
      name.value.trim() || t('words.effects'),
      { effects: effects.value },
      'effects',
    )
    notes.told(t('layer.effectsPart.isInTheKit', { name: name.value }))
  } catch (error) {
    notes.problem(error)
  }
}

const apply = (preset: Preset) =>
  props.layer.addParts('effects', parts(preset.content.effects as Effect[]), preset.name)
const remove = (preset: Preset) =>
  kit.removePreset(preset).catch((error: unknown) => notes.problem(error))
</script>

<template>
  <fieldset class="effects" :disabled="layer.locked.value">
    <TrayItem :name="$t('words.effects')" :told="effects.length ? String(effects.length) : ''">
      <div class="finder">
        <button class="btn btn-primary btn-sm" data-test="find-effect" @click="choosing = true">
          <IconPlus aria-hidden="true" /> {{ $t('layer.effectsPart.addAnEffect') }}
        </button>
        <BDropdown
          size="sm"
          variant="secondary"
          no-caret
          teleport-to="body"
          strategy="fixed"
          data-test="effects-more"
        >
          <template #button-content>{{ $t('words.kit') }}</template>
          <BDropdownItemButton :disabled="!effects.length" @click="copy(effects)">
            {{ $t('layer.effectsPart.copyAllEffects') }}
          </BDropdownItemButton>
          <BDropdownItemButton v-if="opened" data-test="copy-effect" @click="copy([opened])">
            {{ $t('layer.effectsPart.copyOne', { name: titleOf(opened) }) }}
          </BDropdownItemButton>
          <BDropdownItemButton
            :disabled="!clipboard.effects.length"
            data-test="paste-effects"
            @click="layer.addParts('effects', parts(clipboard.effects))"
          >
            {{ $t('layer.effectsPart.paste', { count: clipboard.effects.length || '' }) }}
          </BDropdownItemButton>
          <BDropdownItemButton
            :disabled="!effects.length"
            data-test="keep-effects"
            @click="((name = ''), (naming = true))"
          >
            {{ $t('layer.effectsPart.keepTheseInTheKit') }}
          </BDropdownItemButton>
          <template v-for="one in kit.effects" :key="one.id">
            <BDropdownItemButton :data-test="`effects-${one.name}`" @click="apply(one)">
              {{ $t('layer.effectsPart.add', { name: one.name }) }}
            </BDropdownItemButton>
            <BDropdownItemButton @click="remove(one)">
              <span class="quiet">{{
                $t('layer.effectsPart.takeOutOfTheKit', { name: one.name })
              }}</span>
            </BDropdownItemButton>
          </template>
        </BDropdown>
      </div>
      <p v-if="!effects.length" class="tiny quiet">
        {{ $t('layer.effectsPart.noneYetEffectsWorkOne') }}
      </p>
      <PartRows
        v-model:open="open"
        :parts="effects"
        :kinds="kit.layer?.effects ?? []"
        test="effect-row"
        @switch="(id, on) => layer.setPart('effects', id, { on })"
        @order="(id, to) => layer.orderPart('effects', id, to)"
        @remove="layer.removePart('effects', $event)"
      >
        <template #default="{ part }"><EffectFields :layer="layer" :effect="part" /></template>
      </PartRows>
    </TrayItem>
    <EffectFields v-if="phone && opened" :key="opened.id" :layer="layer" :effect="opened" />
    <EffectChoice v-model="choosing" :layer="layer" @take="add" />
    <NameDialog
      v-model="name"
      :open="naming"
      :title="$t('layer.effectsPart.keepTheseEffects')"
      @ok="keep"
      @hidden="naming = false"
    />
  </fieldset>
</template>

<style scoped>
.effects {
  display: grid;
  gap: 6px;
  min-width: 0;
}
.finder {
  display: flex;
  gap: 6px;
}
.finder .btn {
  min-height: var(--touch);
}
p {
  margin: 0;
}
</style>
