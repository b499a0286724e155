<script setup lang="ts">
/** Motions kept for other layers, and this one to be kept. */
import { BDropdown, BDropdownItemButton } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import type { Layer } from '@/inhand/useLayer'
import { useKit, type Preset } from '@/stores/kit'
import { useNotes } from '@/stores/notes'
import { t } from '@/texts'
import { keptMotion } from './kept'
import NameDialog from '@/controls/NameDialog.vue'

const props = defineProps<{ layer: Layer }>()
const kit = useKit()
const notes = useNotes()
const clip = computed(() => props.layer.clip.value)

const naming = ref(false)
const name = ref('')
async function keep() {
  if (!clip.value) return
  try {
    await kit.keepPreset(
      name.value.trim() || t('move.kitMotions.motion'),
      keptMotion(clip.value),
      'motion',
    )
    notes.told(
      t('move.kitMotions.isInTheKit', { trim: name.value.trim() || t('move.kitMotions.motion') }),
    )
  } catch (error) {
    notes.problem(error)
  }
}
/** From where the layer is, or else from where the motion was kept. */
const apply = (preset: Preset, relative = true) =>
  props.layer.send({
    kind: 'apply_motion',
    clips: props.layer.ids.value,
    motion: preset.content as never,
    name: preset.name,
    relative,
  })
const remove = (preset: Preset) =>
  kit.removePreset(preset).catch((error: unknown) => notes.problem(error))
</script>

<template>
  <section :aria-label="$t('words.kit')">
    <div class="head">
      <strong>{{ $t('move.kitMotions.motionsInTheKit') }}</strong>
      <BDropdown
        size="sm"
        variant="secondary"
        teleport-to="body"
        strategy="fixed"
        no-caret
        data-test="motions"
      >
        <template #button-content>{{ $t('words.kit') }}</template>
        <BDropdownItemButton data-test="keep-motion" @click="((name = ''), (naming = true))">
          {{ $t('move.kitMotions.keepThisMotionInThe') }}
        </BDropdownItemButton>
        <template v-for="one in kit.motions" :key="one.id">
          <BDropdownItemButton :data-test="`motion-${one.name}`" @click="apply(one)">
            {{ $t('move.kitMotions.moveAs', { name: one.name }) }}
          </BDropdownItemButton>
          <BDropdownItemButton @click="apply(one, false)">
            <span class="quiet">{{
              $t('move.kitMotions.moveAsWhereItWas', { name: one.name })
            }}</span>
          </BDropdownItemButton>
          <BDropdownItemButton @click="remove(one)">
            <span class="quiet">{{
              $t('move.kitMotions.takeOutOfTheKit', { name: one.name })
            }}</span>
          </BDropdownItemButton>
        </template>
      </BDropdown>
    </div>
    <p class="tiny quiet">
      {{ $t('move.kitMotions.aKeptMotionFitsItself') }}
    </p>
    <NameDialog
      v-model="name"
      :open="naming"
      :title="$t('move.kitMotions.keepThisMotion')"
      @ok="keep"
      @hidden="naming = false"
    />
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 6px;
  min-width: 0;
}
.head {
  display: flex;
  align-items: center;
  justify-content: space-between;
  min-height: 32px;
}
p {
  margin: 0;
}
</style>
