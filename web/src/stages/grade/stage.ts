import Icon from '~icons/tabler/circle-half-2'
import { defineStage } from '@/stages/stage'
import GradeBench from './GradeBench.vue'
import GradeOverlay from './GradeOverlay.vue'

export default defineStage({
  name: 'Grade',
  place: 3,
  icon: Icon,
  bench: GradeBench,
  overlay: GradeOverlay,
})
