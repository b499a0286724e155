<script setup lang="ts">
/** One key of the map: told, and set anew by pressing another. */
import { computed, nextTick, ref } from 'vue'
import IconX from '~icons/tabler/x'
import { t } from '@/texts'
import { keyLabel, keyName, type Binding } from './keys'
import { meaning, withKey, type KeyGroup } from './ownKeys'
import { useOwnKeys } from './useOwnKeys'

const props = defineProps<{ groups: KeyGroup[]; group: KeyGroup; binding: Binding }>()
const own = useOwnKeys()
const asking = ref(false)
const refused = ref('')
const button = ref<HTMLButtonElement | null>(null)
const now = computed(() => own.now(props.group.id, props.binding.key))
const told = computed(() => (now.value ? keyLabel(now.value) : t('words.no')))

const MODIFIERS = ['control', 'shift', 'alt', 'meta']

function pressed(event: KeyboardEvent) {
  if (!asking.value || event.key === 'Tab') return
  event.preventDefault()
  event.stopPropagation()
  if (MODIFIERS.includes(event.key.toLowerCase())) return
  if (event.key === 'Escape') asking.value = false
  else set(keyName(event))
}

function set(key: string) {
  const other = key
    ? meaning(own.keys.value, props.groups, props.group, props.binding, key)
    : undefined
  refused.value = other
    ? t('controls.keyEditor.isTaken', { key: keyLabel(key), label: other.label })
    : ''
  if (other) return
  own.keys.value = withKey(own.keys.value, props.group.id, props.binding.key, key)
  asking.value = false
}

async function ask() {
  refused.value = ''
  asking.value = !asking.value
  await nextTick()
  button.value?.focus()
}
</script>

<template>
  <span class="editor">
    <button
      ref="button"
      type="button"
      class="kbd"
      :class="{ asking }"
      :aria-label="$t('controls.keyEditor.keyForPressToSet', { label: binding.label, told })"
      :data-test="`key-of-${binding.key}`"
      @click="ask"
      @keydown="pressed"
      @blur="asking = false"
    >
      {{ asking ? $t('controls.keyEditor.pressAKey') : told }}
    </button>
    <button
      v-if="asking && now"
      type="button"
      class="btn btn-bare none"
      :aria-label="$t('controls.keyEditor.noKeyFor', { label: binding.label })"
      :title="$t('controls.keyEditor.noKey')"
      @pointerdown.prevent
      @click="set('')"
    >
      <IconX aria-hidden="true" />
    </button>
    <span v-if="refused" class="tiny refused" role="alert">{{ refused }}</span>
  </span>
</template>

<style scoped>
.editor {
  display: inline-flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px;
  max-width: 190px;
}
.kbd {
  border: 0;
  color: var(--text);
  font-size: 13px;
  background: var(--raised);
  border-radius: 6px 6px 2px 6px;
  padding: 3px 8px;
  min-width: 34px;
  min-height: calc(var(--touch) - 8px);
}
.kbd.asking {
  background: var(--accent);
  color: var(--ink);
}
.none {
  min-width: 28px;
  min-height: 28px;
  padding: 0;
}
.refused {
  color: #ffb0a8;
}
</style>
