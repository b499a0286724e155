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
  <BModal
    v-model="open"
    :title="$t('controls.keySheet.keys')"
    ok-only
    :ok-title="$t('words.close')"
    ok-variant="secondary"
    scrollable
  >
    <div class="own">
      <label class="form-check form-switch">
        <input
          v-model="own.singles.value"
          type="checkbox"
          role="switch"
          class="form-check-input"
          data-test="single-keys"
        />
        <span>{{ $t('controls.keySheet.keysOfOneLetter') }}</span>
      </label>
      <button
        class="btn btn-secondary btn-sm"
        :disabled="!Object.keys(own.keys.value).length"
        data-test="keys-reset"
        @click="own.keys.value = {}"
      >
        {{ $t('controls.keySheet.allAsTheyWere') }}
      </button>
    </div>
    <p class="tiny quiet">{{ $t('controls.keySheet.tapAKeyToSet') }}</p>
    <template v-for="group in groups" :key="group.id">
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
    <h3>{{ $t('controls.keySheet.byFingerAndMouse') }}</h3>
    <dl class="sheet">
      <dt>
        <kbd>{{ $t('controls.keySheet.ctrl') }}</kbd> {{ $t('controls.keySheet.wheelOrPinch') }}
      </dt>
      <dd>{{ $t('controls.keySheet.zoomsTheTimelineAboutThe') }}</dd>
      <dt>{{ $t('controls.keySheet.holdThenDrag') }}</dt>
      <dd>{{ $t('controls.keySheet.movesAClipDragAn') }}</dd>
      <dt>{{ $t('controls.keySheet.dragOverAnEmptyPlace') }}</dt>
      <dd>{{ $t('controls.keySheet.takesAllClipsItTouches') }}</dd>
      <dt>{{ $t('controls.keySheet.doubleTapAGroup') }}</dt>
      <dd>{{ $t('controls.keySheet.opensIt') }}</dd>
      <dt>{{ $t('controls.keySheet.doubleTapAValuesName') }}</dt>
      <dd>{{ $t('controls.keySheet.backToWhereItWas') }}</dd>
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
