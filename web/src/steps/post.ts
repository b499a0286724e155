import { client, need } from '@/api/client'
import type { Ask, Done, State } from './line'

/** Ask the server for a step of a project, or for a way along its history. */
export async function post(project: string, ask: Ask, based_on: number): Promise<Done | State> {
  const params = { path: { id: project } }
  if (ask.kind === 'edit') {
    const body = { based_on, edit: ask.edit }
    return need(client.POST('/api/projects/{id}/edits', { params, body }))
  }
  if (ask.kind === 'go') {
    const body = { based_on, revision: ask.revision }
    // The client's types forget that points have exactly two numbers.
    return (await need(client.POST('/api/projects/{id}/go', { params, body }))) as unknown as State
  }
  return need(client.POST(`/api/projects/{id}/${ask.kind}`, { params, body: { based_on } }))
}
