import { createRouter, createWebHistory } from 'vue-router';

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'projects', component: () => import('./views/ProjectsView.vue'), meta: { title: 'Projects' } },
    {
      path: '/project/:project',
      name: 'bench',
      component: () => import('./views/BenchView.vue'),
      meta: { title: 'Bench' },
    },
    {
      path: '/renders',
      name: 'renders',
      component: () => import('./views/RendersView.vue'),
      meta: { title: 'Renders' },
    },
    { path: '/guide', name: 'guide', component: () => import('./views/GuideView.vue'), meta: { title: 'Guide' } },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
});
router.afterEach((to) => {
  document.title = `${String(to.meta['title'])} – Jackplane`;
});
