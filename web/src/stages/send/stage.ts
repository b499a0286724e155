import Icon from '~icons/tabler/rocket'
import { defineStage } from '@/stages/stage'
import SendBench from './SendBench.vue'

export default defineStage({
  name: 'Send',
  place: 7,
  icon: Icon,
  bench: SendBench,
})
