<script setup lang="ts">
/** The sliders of a stage, made from what the core says of its parameters. */
import { computed } from 'vue'
import IconEye from '~icons/tabler/eye'
import IconEyeOff from '~icons/tabler/eye-off'
import ValueField from '@/controls/ValueField.vue'
import { usePhone } from '@/look/phone'
import TrayItem from '@/tray/TrayItem.vue'
import { useKit, type Control } from '@/stores/kit'
import type { useGrade } from './useGrade'

const props = defineProps<{
  grade: ReturnType<typeof useGrade>
  stage: string
}>()
const kit = useKit()
const { phone } = usePhone()
const stage = computed(() => kit.grade?.stages.find((one) => one.name === props.stage))
const controls = computed(() => {
  const sliders = stage.value?.controls.filter((one) => one.control === 'slider') ?? []
  return sliders.filter((one) => typeof one.default === 'number')
})
const on = computed(() => props.grade.prop(`${props.stage}/on`) !== false)
/** Whether it is set to anything. */
const used = computed(() =>
  controls.value.some((one) => props.grade.prop(path(one)) !== undefined && !atRest(one)),
)

const GROUNDS: Record<string, string> = {
  warmth: 'linear-gradient(90deg, #5577d8, #6d6873 50%, #e5a03c)',
  tint: 'linear-gradient(90deg, #4fae62, #6d6873 50%, #c25fb0)',
  hue: 'linear-gradient(90deg, #5c8fd6, #b46ad0, #d66a6a, #c9a94b, #5fb46a, #5c8fd6)',
}

const path = (one: Control) => `${props.stage}/${one.name}`
const rest = (one: Control) => Number(one.default)
const atRest = (one: Control) => props.grade.prop(path(one)) === one.default
const label = (one: Control) => one.name.charAt(0).toUpperCase() + one.name.slice(1)
const digits = (one: Control) => ((one.step ?? 1) < 0.1 ? 2 : (one.step ?? 1) < 1 ? 1 : 0)
const signed = (one: Control) => (one.low ?? 0) < 0 && rest(one) === 0
</script>

<template>
  <fieldset v-if="stage" class="stage" :class="{ off: !on }" :disabled="grade.locked.value">
    <div v-if="!phone" class="title">
      <legend>{{ stage.title }}</legend>
      <button
        type="button"
        class="switch"
        role="switch"
        :aria-checked="on"
        :aria-label="$t('grade.gradeSliders.on', { title: stage.title })"
        :title="
          on
            ? $t('grade.gradeSliders.switchThisStageOff')
            : $t('grade.gradeSliders.switchThisStageOn')
        "
        :data-test="`stage-on-${props.stage}`"
        :class="{ used: used && on }"
        @click="grade.set({ [`${props.stage}/on`]: !on })"
      >
        <IconEye v-if="on" aria-hidden="true" />
        <IconEyeOff v-else aria-hidden="true" />
      </button>
      <slot name="head" />
    </div>
    <ValueField
      v-for="one in controls"
      :key="one.name"
      :label="label(one)"
      :help="one.help"
      :value="Number(grade.now(path(one), one.default))"
      :low="one.low ?? 0"
      :high="one.high ?? 1"
      :step="one.step ?? 0.01"
      :digits="digits(one)"
      :unit="one.unit === 'stops' ? '' : one.unit"
      :reset="rest(one)"
      :signed="signed(one)"
      :ground="GROUNDS[one.name]"
      :keyed="grade.keyed(path(one))"
      @trying="grade.trying({ [path(one)]: $event })"
      @set="grade.set({ [path(one)]: $event })"
      @key="grade.toggleKey(path(one), one.default)"
    />
    <slot />
    <TrayItem
      v-if="phone"
      last
      :name="stage.title"
      :told="on ? $t('words.isOn') : $t('words.isOff')"
    >
      <button
        type="button"
        class="btn btn-secondary"
        role="switch"
        :aria-checked="on"
        :data-test="`stage-on-${props.stage}`"
        @click="grade.set({ [`${props.stage}/on`]: !on })"
      >
        <IconEye v-if="on" aria-hidden="true" />
        <IconEyeOff v-else aria-hidden="true" />
        {{
          on
            ? $t('grade.gradeSliders.switchOff', { title: stage.title })
            : $t('grade.gradeSliders.switchOn', { title: stage.title })
        }}
      </button>
    </TrayItem>
  </fieldset>
</template>

<style scoped>
.stage {
  min-width: 0;
}
.stage + .stage {
  margin-top: 6px;
}
.title {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 30px;
}
legend {
  float: none;
  width: auto;
  margin: 0;
  font-size: 13px;
  font-weight: 600;
  color: var(--quiet);
}
.switch {
  border: 0;
  background: none;
  color: #6f6778;
  padding: 0 8px;
  min-height: 30px;
  border-radius: 8px 8px 2px 8px;
}
.switch svg {
  width: 17px;
  height: 17px;
  display: block;
}
.switch.used {
  color: var(--mark);
}
.switch[aria-checked='false'] {
  background: var(--raised);
  color: var(--text);
}
.off :deep(.field) {
  opacity: 0.45;
}
</style>
