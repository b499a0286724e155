import { inject, type InjectionKey, type Ref } from 'vue'
import type { Player } from './usePlayer'

export interface Screen {
  player: Player
  canvas: Ref<HTMLCanvasElement | null>
  video: Ref<HTMLVideoElement | null>
}

export const SCREEN: InjectionKey<Screen> = Symbol('screen')

/** The player of the open project. */
export function useScreen(): Screen {
  const screen = inject(SCREEN)
  if (!screen) throw new Error('there is no screen here')
  return screen
}
