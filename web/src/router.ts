import { createRouter, createWebHistory } from 'vue-router';
import JobPage from './pages/JobPage.vue';
import JobsPage from './pages/JobsPage.vue';
import ShopPage from './pages/ShopPage.vue';

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', component: JobsPage },
    { path: '/shop', component: ShopPage },
    { path: '/jobs/:id', redirect: (to) => `/jobs/${String(to.params.id)}/lines` },
    { path: '/jobs/:id/:stage', component: JobPage },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
});
