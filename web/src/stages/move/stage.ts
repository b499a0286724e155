import Icon from '~icons/tabler/vector-spline'
import { defineStage } from '@/stages/stage'
import { useMouth } from '@/stores/mouth'
import { useMoving, type MoveAsk } from '@/stores/moving'
import { t } from '@/texts'
import MoveBench from './MoveBench.vue'
import MoveOverlay from './MoveOverlay.vue'
import MoveTools from './MoveTools.vue'

/** Of the poses of a mouth, in their order. */
const DIGITS = [...'1234567890']
const ask = (what: MoveAsk) => () => useMoving().ask(what)

export default defineStage({
  name: t('move.stage.move'),
  place: 5,
  icon: Icon,
  bench: MoveBench,
  overlay: MoveOverlay,
  side: MoveTools,
  keys: () => [
    { key: 'shift+k', label: t('move.stage.setOrRemoveAKey'), run: ask('key') },
    { key: 'q', label: t('words.toTheKeyBefore'), run: ask('before'), repeats: true },
    { key: 'w', label: t('words.toTheNextKey'), run: ask('next'), repeats: true },
    ...DIGITS.map((digit, index) => ({
      key: digit,
      label: t('move.stage.pose', { digit }),
      run: () => useMouth().tap(index),
    })),
  ],
})
