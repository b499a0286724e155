import { computed } from 'vue'
import { isSounding, type Insert, type SoundingClip } from '@/api/types'
import { useProperties } from '@/inhand/useProperties'
import { omitted } from '@/motion/props'
import { useProject } from '@/stores/project'
import type { ChainOwner } from './chain'

/** The chain of the clips in hand; those of several are set together. */
export function useClipChain() {
  const project = useProject()
  const sound = useProperties<SoundingClip>(isSounding)
  const named = () => ({ clips: sound.ids.value, list: 'chain' as const })

  const chain: ChainOwner = {
    inserts: computed<Insert[]>(() => sound.clip.value?.chain ?? []),
    owner: () => sound.clip.value?.id ?? '',
    local: sound.local,
    locked: sound.locked,
    async add(kind) {
      const parts = [{ kind }] as never
      const { made } = await project.make({ kind: 'add_parts', ...named(), parts })
      return made[0] ?? sound.clip.value?.chain?.at(-1)?.id ?? ''
    },
    addAll(inserts, name, instead = false) {
      const parts = inserts.map((one) => omitted(one, 'id')) as never
      project.edit({ kind: 'add_parts', ...named(), parts, name, instead })
    },
    set: (part, values) => project.edit({ kind: 'set_part', ...named(), part, values }),
    remove: (part) => project.edit({ kind: 'remove_part', ...named(), part }),
    order: (part, to) => project.edit({ kind: 'order_part', ...named(), part, to }),
    noiseOf: () => (sound.clip.value ? { clip: sound.clip.value.id ?? '' } : null),
  }
  return { sound, chain }
}
