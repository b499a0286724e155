import Icon from '~icons/tabler/vector-spline'
import { defineStage } from '@/stages/stage'
import { useMoving, type MoveAsk } from '@/stores/moving'
import MoveBench from './MoveBench.vue'
import MoveOverlay from './MoveOverlay.vue'
import MoveTools from './MoveTools.vue'

const ask = (what: MoveAsk) => () => useMoving().ask(what)

export default defineStage({
  name: 'Move',
  place: 5,
  icon: Icon,
  bench: MoveBench,
  overlay: MoveOverlay,
  side: MoveTools,
  keys: () => [
    { key: 'shift+k', label: 'Set or remove a key at the playhead', run: ask('key') },
    { key: 'q', label: 'To the key before', run: ask('before'), repeats: true },
    { key: 'w', label: 'To the next key', run: ask('next'), repeats: true },
  ],
})
