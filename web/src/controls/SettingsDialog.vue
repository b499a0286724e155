<script setup lang="ts">
/** Which settings of the copied clip those in hand are given. */
import { BFormCheckbox, BModal } from 'bootstrap-vue-next'
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import { useClipboard } from '@/stores/clipboard'
import { useHand } from '@/stores/hand'
import { useProject } from '@/stores/project'
import { t } from '@/texts'

const open = defineModel<boolean>({ required: true })
const clipboard = useClipboard()
const hand = useHand()
const project = useProject()

const GROUPS = [
  {
    id: 'position',
    name: t('words.position'),
    help: t('controls.settingsDialog.whereItLiesOnThe'),
  },
  {
    id: 'size',
    name: t('controls.settingsDialog.sizeAndTurn'),
    help: t('controls.settingsDialog.howLargeTurnedLeaningMirrored'),
  },
  { id: 'opacity', name: t('words.opacity'), help: t('controls.settingsDialog.howMuchOfWhatLies') },
  {
    id: 'blend',
    name: t('controls.settingsDialog.blend'),
    help: t('controls.settingsDialog.howItMixesWithWhat'),
  },
  {
    id: 'clipping',
    name: t('controls.settingsDialog.clipping'),
    help: t('controls.settingsDialog.seenOnlyWhereTheLayer'),
  },
  {
    id: 'speed',
    name: t('controls.settingsDialog.speed'),
    help: t('controls.settingsDialog.factorOrRampTheLength'),
  },
  {
    id: 'grade',
    name: t('controls.settingsDialog.grade'),
    help: t('controls.settingsDialog.allOfItWithZones'),
  },
  {
    id: 'key',
    name: t('controls.settingsDialog.key'),
    help: t('controls.settingsDialog.byColourOrBrightness'),
  },
  { id: 'masks', name: t('words.masks'), help: t('controls.settingsDialog.andWhatIsCropped') },
  {
    id: 'effects',
    name: t('words.effects'),
    help: t('controls.settingsDialog.inPlaceOfThoseThat'),
  },
  {
    id: 'moves',
    name: t('controls.settingsDialog.motion'),
    help: t('controls.settingsDialog.howItComesAndGoes'),
  },
  {
    id: 'sound',
    name: t('controls.settingsDialog.sound'),
    help: t('controls.settingsDialog.gainFadesPitch'),
  },
] as const
type Group = (typeof GROUPS)[number]['id']

const chosen = useLocalStorage<Group[]>('velvet-kite.settings-given', ['grade'])
const source = computed(() => clipboard.first)
const many = computed(() => hand.found.length)

function give() {
  if (!source.value || !chosen.value.length) return
  project.edit({
    kind: 'apply_settings',
    clips: hand.ids,
    source: source.value as never,
    groups: [...chosen.value],
  })
}
</script>

<template>
  <BModal
    v-model="open"
    :title="$t('controls.settingsDialog.giveCopiedSettings')"
    :ok-title="$t('controls.settingsDialog.giveThemToClips', many)"
    :cancel-title="$t('words.back')"
    cancel-variant="secondary"
    :ok-disabled="!chosen.length"
    data-test="settings-dialog"
    @ok="give"
  >
    <p class="quiet">
      {{
        $t('controls.settingsDialog.from', {
          name: source?.name || $t('controls.settingsDialog.theCopiedClip'),
        })
      }}
    </p>
    <BFormCheckbox
      v-for="one in GROUPS"
      :key="one.id"
      v-model="chosen"
      :value="one.id"
      class="group"
      :data-test="`group-${one.id}`"
    >
      {{ one.name }} <span class="tiny quiet">{{ one.help }}</span>
    </BFormCheckbox>
  </BModal>
</template>

<style scoped>
.group {
  min-height: var(--touch);
  display: flex;
  align-items: center;
  gap: 8px;
}
</style>
