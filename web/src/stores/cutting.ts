import { defineStore } from 'pinia'
import { client, need, type Schemas } from '@/api/client'
import { takeOf } from '@/api/types'
import { useFinding } from './useFinding'

export type CutThrough = Schemas['CutThrough']
export type CutThroughFound = Schemas['CutThroughFound']

/** What is cut out of videos, frame by frame. */
export const useCutting = defineStore('cutting', () =>
  useFinding<CutThrough, CutThroughFound>('cutting', {
    bare: ({ views, edge, first, last }) => ({ views, edge, first, last }),
    begin: (media, body) =>
      need(client.POST('/api/takes/{id}/cuts', { params: { path: takeOf(media) }, body })),
    look: (id) => need(client.GET('/api/cuts/{id}', { params: { path: { id } } })),
  }),
)
