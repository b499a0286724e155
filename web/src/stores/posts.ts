import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { client, need, type Schemas } from '@/api/client'
import { isUnfinished } from '@/jobs/job'
import { useJobs, type Deed } from '@/stores/jobs'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { t } from '@/texts'

export type Post = Schemas['PostOut']
export type PostWords = Schemas['WordsIn']

/** Milliseconds ahead from which on it is worth to watch for what is scheduled. */
const SOON = 120_000

/** Whether something about it happens now, or soon. */
const moves = ({ job }: Post) =>
  isUnfinished(job) && (!job.due_at || Date.parse(job.due_at) - Date.now() < SOON)

/** The practice feed: who one is there, and what is posted of the open project. */
export const usePosts = defineStore('posts', () => {
  const project = useProject()
  const notes = useNotes()
  const jobs = useJobs()
  const feed = ref<Schemas['FeedOut'] | null>(null)
  const posts = ref<Post[]>([])
  const loaded = ref(false)
  const connected = computed(() => Boolean(feed.value?.name))

  jobs.onChange(['post'], refresh)
  watch(
    () => posts.value.some(moves),
    (on) => jobs.setBusy('posts', on),
  )

  /** Do it, and tell what went wrong; then look again. */
  async function tried<T>(deed: () => Promise<T>): Promise<T | null> {
    try {
      return await deed()
    } catch (error) {
      notes.problem(error)
      return null
    } finally {
      await refresh()
    }
  }

  async function refresh() {
    const { id } = project
    if (!id) return
    try {
      const [told, found] = await Promise.all([
        need(client.GET('/api/feed')),
        need(client.GET('/api/projects/{id}/posts', { params: { path: { id } } })),
      ])
      if (id !== project.id) return
      tellEnds(found)
      feed.value = told
      posts.value = found
      loaded.value = true
    } catch (error) {
      notes.problem(error)
    }
  }

  /** What has come to its end is told once, wherever one is. */
  function tellEnds(found: Post[]) {
    for (const post of found) {
      const before = posts.value.find((one) => one.id === post.id)
      if (!before || !isUnfinished(before.job) || isUnfinished(post.job)) continue
      if (post.there === 'live') notes.told(t('stores.posts.isThere', { title: post.title }))
      else if (post.job.state === 'failed')
        notes.told(t('stores.posts.isNotThere', { title: post.title }))
    }
  }

  const connect = (given: { name?: string; key?: string }) =>
    tried(() => need(client.POST('/api/feed', { body: { name: '', key: '', ...given } })))
  const leave = () => tried(() => need(client.DELETE('/api/feed')))

  /** Open the pages of the feed, signed in. */
  async function visit(at = '') {
    // A window that is opened after an answer counts as unasked.
    const page = window.open('about:blank')
    const told = await tried(() => need(client.POST('/api/feed/visit')))
    if (!page) return
    page.opener = null
    if (told) page.location.href = at ? `${told.address}#${at}` : told.address
    else page.close()
  }

  const start = (film: string, body: PostWords) =>
    tried(() =>
      need(client.POST('/api/exports/{id}/posts', { params: { path: { id: film } }, body })),
    )
  const reword = (id: string, body: PostWords) =>
    tried(() => need(client.PUT('/api/posts/{id}', { params: { path: { id } }, body })))
  const takeDown = (id: string) =>
    tried(() => need(client.POST('/api/posts/{id}/down', { params: { path: { id } } })))
  const remove = (id: string) =>
    tried(() => need(client.DELETE('/api/posts/{id}', { params: { path: { id } } })))
  const act = (post: Post, deed: Deed) => tried(() => jobs.act(post.job.id, deed))

  /** Ask the feed how what is there is doing. */
  async function look() {
    const up = posts.value.filter((post) => post.there === 'live' && !isUnfinished(post.job))
    for (const { id } of up) {
      try {
        const found = await need(client.POST('/api/posts/{id}/look', { params: { path: { id } } }))
        posts.value = posts.value.map((one) => (one.id === id ? found : one))
      } catch {
        // The counts stay as they were told last.
        return
      }
    }
  }

  function forget() {
    posts.value = []
    loaded.value = false
  }

  return {
    feed,
    posts,
    loaded,
    connected,
    refresh,
    connect,
    leave,
    visit,
    start,
    reword,
    takeDown,
    remove,
    act,
    look,
    forget,
  }
})
