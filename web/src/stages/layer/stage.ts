import Icon from '~icons/tabler/stack-front'
import { defineStage } from '@/stages/stage'
import { t } from '@/texts'
import LayerBench from './LayerBench.vue'
import LayerOverlay from './LayerOverlay.vue'
import LayerTools from './LayerTools.vue'

export default defineStage({
  name: t('layer.stage.layer'),
  place: 4,
  icon: Icon,
  bench: LayerBench,
  overlay: LayerOverlay,
  side: LayerTools,
})
