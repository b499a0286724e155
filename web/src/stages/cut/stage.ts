import Icon from '~icons/tabler/separator-vertical'
import { defineStage } from '@/stages/stage'
import CutBench from './CutBench.vue'

export default defineStage({
  name: 'Cut',
  place: 2,
  icon: Icon,
  bench: CutBench,
})
