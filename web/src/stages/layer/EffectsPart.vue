<script setup lang="ts">
/** The effects of a layer, in order: added by search, switched, ordered, mixed, copied, kept. */
import { BDropdown, BDropdownItemButton } from 'bootstrap-vue-next'
import { storeToRefs } from 'pinia'
import { computed, ref } from 'vue'
import IconEye from '~icons/tabler/eye'
import IconEyeOff from '~icons/tabler/eye-off'
import IconDown from '~icons/tabler/arrow-down'
import IconTrash from '~icons/tabler/trash'
import IconUp from '~icons/tabler/arrow-up'
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
import EffectFields from './EffectFields.vue'
import { found } from './effects'
import type { Layer } from '@/inhand/useLayer'
import NameDialog from '@/controls/NameDialog.vue'

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
const wanted = ref('')
const searching = ref(false)
const kinds = computed(() => found(kit.layer?.effects ?? [], wanted.value))
const kindOf = (effect: Effect) => kit.layer?.effects.find((one) => one.kind === effect.kind)

async function add(kind: string) {
  const parts = [{ kind }] as never
  const clips = props.layer.ids.value
  const { made } = await project.make({ kind: 'add_parts', clips, list: 'effects', parts })
  wanted.value = ''
  searching.value = false
  if (made[0]) open.value = made[0]
}

function search(event: KeyboardEvent) {
  const first = kinds.value[0]
  if (event.key === 'Enter' && first) add(first.kind)
  else if (event.key === 'Escape') searching.value = false
  else return
  event.stopPropagation()
}

const parts = (row: readonly Effect[]) => row.map((one) => omitted(one, 'id'))

function copyAll() {
  clipboard.effects = [...effects.value]
  notes.told(t('layer.effectsPart.effectsCopied', effects.value.length))
}

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
        <input
          v-model="wanted"
          type="search"
          class="form-control form-control-sm"
          :placeholder="$t('layer.effectsPart.addAnEffect')"
          :aria-label="$t('layer.effectsPart.addAnEffectSearch')"
          data-test="find-effect"
          @focus="searching = true"
          @input="searching = true"
          @keydown="search"
        />
        <BDropdown
          size="sm"
          variant="secondary"
          no-caret
          teleport-to="body"
          strategy="fixed"
          data-test="effects-more"
        >
          <template #button-content>{{ $t('words.kit') }}</template>
          <BDropdownItemButton :disabled="!effects.length" @click="copyAll">
            {{ $t('layer.effectsPart.copyAllEffects') }}
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
      <ul v-if="searching" class="found" data-test="found-effects">
        <li v-for="one in kinds" :key="one.kind">
          <button :data-test="`effect-${one.kind}`" @click="add(one.kind)">
            <strong>{{ one.title }}</strong> <span class="tiny quiet">{{ one.help }}</span>
          </button>
        </li>
        <li v-if="!kinds.length" class="quiet tiny none">
          {{ $t('layer.effectsPart.noEffectIsCalledThat') }}
        </li>
        <li>
          <button class="quiet tiny" @click="searching = false">
            {{ $t('layer.effectsPart.closeTheList') }}
          </button>
        </li>
      </ul>
      <p v-else-if="!effects.length" class="tiny quiet">
        {{ $t('layer.effectsPart.noneYetEffectsWorkOne') }}
      </p>
      <ol class="row-of">
        <li v-for="(one, index) in effects" :key="one.id" data-test="effect-row">
          <div class="head">
            <button
              class="btn btn-bare small"
              role="switch"
              :aria-checked="one.on !== false"
              :aria-label="$t('layer.effectsPart.on', { title: kindOf(one)?.title })"
              @click="layer.setPart('effects', one.id ?? '', { on: one.on === false })"
            >
              <IconEyeOff v-if="one.on === false" aria-hidden="true" />
              <IconEye v-else aria-hidden="true" />
            </button>
            <button
              class="title"
              :aria-expanded="open === one.id"
              @click="open = open === one.id ? '' : (one.id ?? '')"
            >
              {{ kindOf(one)?.title ?? one.kind }}
            </button>
            <button
              class="btn btn-bare small"
              :disabled="!index"
              :aria-label="$t('layer.effectsPart.worksEarlier')"
              :title="$t('layer.effectsPart.worksEarlier')"
              @click="layer.orderPart('effects', one.id ?? '', index - 1)"
            >
              <IconUp aria-hidden="true" />
            </button>
            <button
              class="btn btn-bare small"
              :disabled="index === effects.length - 1"
              :aria-label="$t('layer.effectsPart.worksLater')"
              :title="$t('layer.effectsPart.worksLater')"
              @click="layer.orderPart('effects', one.id ?? '', index + 1)"
            >
              <IconDown aria-hidden="true" />
            </button>
            <button
              class="btn btn-bare small"
              :aria-label="$t('layer.effectsPart.delete', { title: kindOf(one)?.title })"
              @click="layer.removePart('effects', one.id ?? '')"
            >
              <IconTrash aria-hidden="true" />
            </button>
          </div>
          <div v-if="open === one.id && !phone" class="inside">
            <EffectFields :layer="layer" :effect="one" />
          </div>
        </li>
      </ol>
    </TrayItem>
    <EffectFields v-if="phone && opened" :key="opened.id" :layer="layer" :effect="opened" />
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
.finder .form-control {
  min-height: calc(var(--touch) - 4px);
}
.found,
.row-of {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
}
.found {
  background: var(--rail);
  border-radius: var(--fold);
  padding: 4px;
  gap: 0;
}
.found button {
  width: 100%;
  border: 0;
  background: none;
  color: var(--text);
  text-align: left;
  padding: 6px 8px;
  min-height: calc(var(--touch) - 6px);
  border-radius: 7px 7px 2px 7px;
}
.found button:hover,
.found button:focus-visible {
  background: var(--raised);
}
.none {
  padding: 8px;
}
.row-of > li {
  background: var(--raised);
  border-radius: var(--fold);
}
.head {
  display: flex;
  align-items: center;
}
.title {
  flex: 1;
  min-width: 0;
  border: 0;
  background: none;
  color: var(--text);
  text-align: left;
  font-weight: 600;
  min-height: var(--touch);
}
.inside {
  padding: 0 8px 8px;
}
.small {
  min-width: 36px;
  padding: 0 4px;
}
p {
  margin: 0;
}
.phone .row-of {
  display: flex;
  overflow-x: auto;
  scrollbar-width: none;
}
.phone .row-of > li {
  flex: none;
}
.phone .title {
  padding: 0 8px;
}
</style>
