<script setup lang="ts">
import { BModal } from 'bootstrap-vue-next'
import KeyEditor from '@/controls/KeyEditor.vue'
import type { KeyGroup } from '@/controls/ownKeys'
import { useOwnKeys } from '@/controls/useOwnKeys'

const open = defineModel<boolean>({ required: true })
defineProps<{ groups: KeyGroup[] }>()
const own = useOwnKeys()
</script>

<template>
  <BModal v-model="open" title="Keys" ok-only ok-title="Close" ok-variant="secondary" scrollable>
    <div class="own">
      <label class="form-check form-switch">
        <input
          v-model="own.singles.value"
          type="checkbox"
          role="switch"
          class="form-check-input"
          data-test="single-keys"
        />
        <span>Keys of one letter</span>
      </label>
      <button
        class="btn btn-secondary btn-sm"
        :disabled="!Object.keys(own.keys.value).length"
        data-test="keys-reset"
        @click="own.keys.value = {}"
      >
        All as they were
      </button>
    </div>
    <p class="tiny quiet">Tap a key to set another one. They are kept for you on this device.</p>
    <template v-for="group in groups" :key="group.name">
      <h3>{{ group.name }}</h3>
      <dl class="sheet">
        <template v-for="one in group.keys" :key="one.key">
          <dt>
            <KeyEditor :groups="groups" :group="group" :binding="one" />
          </dt>
          <dd>{{ one.label }}</dd>
        </template>
      </dl>
    </template>
    <h3>By finger and mouse</h3>
    <dl class="sheet">
      <dt><kbd>Ctrl</kbd> + wheel, or pinch</dt>
      <dd>Zooms the timeline about the pointer</dd>
      <dt>Hold, then drag</dt>
      <dd>Moves a clip; drag an end to trim</dd>
      <dt>Drag over an empty place</dt>
      <dd>Takes all clips it touches in hand; with a finger, hold first</dd>
      <dt>Double-tap a group</dt>
      <dd>Opens it</dd>
      <dt>Double-tap a value’s name</dt>
      <dd>Back to where it was at first</dd>
    </dl>
  </BModal>
</template>

<style scoped>
.own {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
}
.own label {
  display: flex;
  gap: 8px;
  align-items: center;
  margin: 0;
}
.sheet {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 8px 20px;
  align-items: baseline;
  margin: 0;
}
h3 {
  margin: 18px 0 8px;
  font-size: 15px;
}
h3:first-child {
  margin-top: 0;
}
dt {
  font-weight: 500;
}
dd {
  margin: 0;
  color: var(--soft);
}
kbd {
  color: var(--text);
  font: inherit;
  font-size: 13px;
  background: var(--raised);
  border-radius: 6px 6px 2px 6px;
  padding: 3px 8px;
}
</style>
