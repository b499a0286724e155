import Icon from '~icons/tabler/rocket'
import { defineStage } from '@/stages/stage'
import { t } from '@/texts'
import { useSending } from '@/stores/sending'
import SendBench from './SendBench.vue'

export default defineStage({
  name: t('send.stage.send'),
  place: 7,
  icon: Icon,
  bench: SendBench,
  keys: () => [
    {
      key: 'w',
      label: t('send.captionsPart.tapHelp'),
      run: () => useSending().beginCaption?.(),
    },
  ],
})
