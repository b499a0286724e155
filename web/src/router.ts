import { createRouter, createWebHistory } from 'vue-router'
import { useSession } from '@/stores/session'

export const STAGES = ['gather', 'cut', 'grade', 'layer', 'move', 'send'] as const
export type Stage = (typeof STAGES)[number]

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/sign-in', name: 'sign-in', component: () => import('@/views/SignIn.vue') },
    { path: '/', name: 'projects', component: () => import('@/views/ProjectList.vue') },
    {
      path: `/projects/:id/:stage(${STAGES.join('|')})`,
      name: 'studio',
      component: () => import('@/views/StudioView.vue'),
      props: true,
    },
    { path: '/projects/:id', redirect: (to) => `/projects/${String(to.params.id)}/cut` },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
})

router.beforeEach(async (to) => {
  const session = useSession()
  try {
    await session.look()
  } catch {
    return true
  }
  if (!session.name && to.name !== 'sign-in') {
    return { name: 'sign-in', query: { to: to.fullPath } }
  }
  return session.name && to.name === 'sign-in' ? { name: 'projects' } : true
})
