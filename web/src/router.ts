import { createRouter, createWebHistory } from 'vue-router'
import { STAGE_IDS } from '@/stages/ids'
import { useSession } from '@/stores/session'
import { t } from '@/texts'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/sign-in', name: 'sign-in', component: () => import('@/views/SignIn.vue') },
    {
      path: '/new-password/:who/:token',
      name: 'new-password',
      component: () => import('@/views/NewPassword.vue'),
      props: true,
    },
    { path: '/', name: 'projects', component: () => import('@/views/ProjectList.vue') },
    {
      path: `/projects/:id/:stage(${STAGE_IDS.join('|')})`,
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
  if (to.name === 'new-password') return true
  if (!session.name && to.name !== 'sign-in') {
    return { name: 'sign-in', query: { to: to.fullPath } }
  }
  return session.name && to.name === 'sign-in' ? { name: 'projects' } : true
})

// The studio names its project itself; other pages are named by what they are.
const TITLES: Record<string, string> = {
  'sign-in': t('app.router.signIn'),
  'new-password': t('app.router.newPassword'),
  projects: t('words.projects'),
}
router.afterEach((to) => {
  const title = TITLES[String(to.name)]
  if (title) document.title = t('app.router.velvetKite', { title })
})
