import Icon from '~icons/tabler/photo-plus'
import { defineStage } from '@/stages/stage'
import GatherBench from './GatherBench.vue'

export default defineStage({
  name: 'Gather',
  place: 1,
  icon: Icon,
  bench: GatherBench,
})
