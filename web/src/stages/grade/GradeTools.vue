<script setup lang="ts">
/** What is always at hand while grading: the whole of it on and off, and what was before it. */
import { computed } from 'vue'
import IconBack from '~icons/tabler/x'
import IconBefore from '~icons/tabler/history'
import IconEye from '~icons/tabler/eye'
import IconEyeOff from '~icons/tabler/eye-off'
import IconScope from '~icons/tabler/wave-sine'
import IconWipe from '~icons/tabler/arrows-split-2'
import SideButton from '@/controls/SideButton.vue'
import { useGrip } from '@/controls/useGrip'
import { usePhone } from '@/look/phone'
import { useScreen } from '@/player/inject'
import { usePage } from '@/stores/page'
import { useGrading } from '@/stores/grading'
import { useGrade } from './useGrade'

const grading = useGrading()
const grade = useGrade()
const { player } = useScreen()
const page = usePage()
const { phone } = usePhone()
const on = computed(() => grade.grade.value?.on !== false)

const off = () => ({ kind: 'set_grade', clips: grade.ids.value, values: { on: false } }) as const

const holding = useGrip({
  begin: () => before(true),
  move() {},
  drop: () => before(false),
  tap: () => before(false),
  cancel: () => before(false),
})

function before(shown: boolean) {
  if (shown) player.tryOut(off())
  else {
    player.endTrial()
    player.draw()
  }
}
</script>

<template>
  <SideButton
    :name="on ? $t('grade.gradeTools.on') : $t('grade.gradeTools.off')"
    :icon="on ? IconEye : IconEyeOff"
    :help="$t('grade.gradeTools.theWholeGradeOnOr')"
    role="switch"
    :aria-checked="on"
    :disabled="!grade.grade.value"
    data-test="grade-on"
    @click="grade.send({ ...off(), values: { on: !on } })"
  />
  <SideButton
    v-if="phone && grade.zone.value"
    :name="$t('grade.gradeTools.whole')"
    :icon="IconBack"
    :help="$t('grade.gradeTools.backToTheWholePicture')"
    data-test="whole-picture"
    @click="grading.whole()"
  />
  <SideButton
    :name="$t('grade.gradeTools.wipe')"
    :icon="IconWipe"
    :help="$t('grade.gradeTools.beforeAndAfterBesideEach')"
    :aria-pressed="grading.wipe !== null"
    data-test="wipe"
    @click="grading.wipe = grading.wipe === null ? 0.5 : null"
  />
  <SideButton
    v-if="phone || page.leftAway"
    :name="$t('grade.gradeTools.scope')"
    :icon="IconScope"
    :help="$t('grade.gradeTools.aScopeOverThePicture')"
    :aria-pressed="grading.banded"
    data-test="scope-band-on"
    @click="grading.banded = !grading.banded"
  />
  <SideButton
    :name="$t('grade.gradeTools.before')"
    :icon="IconBefore"
    :help="$t('grade.gradeTools.holdToSeeItBefore')"
    data-test="before"
    @pointerdown="holding.down($event)"
    @keydown.space.prevent="!$event.repeat && before(true)"
    @keyup.space.prevent="before(false)"
    @contextmenu.prevent
  />
</template>
