import { createRouter, createWebHistory } from 'vue-router'
import { useSession } from './stores/session'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', redirect: '/projects' },
    { path: '/sign-in', name: 'sign-in', component: () => import('./pages/SignIn.vue') },
    { path: '/projects', name: 'projects', component: () => import('./pages/ProjectList.vue') },
    { path: '/projects/:id', name: 'project', component: () => import('./pages/Workspace.vue'), props: true },
  ],
})

router.beforeEach(async (to) => {
  const session = useSession()
  const account = await session.resume()
  if (!account && to.name !== 'sign-in') return { name: 'sign-in', query: { to: to.fullPath } }
  if (account && to.name === 'sign-in') return { name: 'projects' }
  return true
})
