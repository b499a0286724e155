import Icon from '~icons/tabler/circle-half-2'
import { defineStage } from '@/stages/stage'
import { t } from '@/texts'
import GradeBand from './GradeBand.vue'
import GradeBench from './GradeBench.vue'
import GradeOverlay from './GradeOverlay.vue'
import GradeTools from './GradeTools.vue'

export default defineStage({
  name: t('grade.stage.grade'),
  place: 3,
  icon: Icon,
  bench: GradeBench,
  overlay: GradeOverlay,
  side: GradeTools,
  band: GradeBand,
})
