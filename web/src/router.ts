import { createRouter, createWebHistory } from 'vue-router';
import JobPage from './pages/JobPage.vue';
import JobsPage from './pages/JobsPage.vue';
import ShopPage from './pages/ShopPage.vue';

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', component: JobsPage },
    { path: '/shop', component: ShopPage },
    { path: '/library', component: () => import('./pages/library/LibraryPage.vue') },
    { path: '/moulds', component: () => import('./pages/MouldsPage.vue') },
    { path: '/jobs/:id/script', component: () => import('./pages/print/ScriptPage.vue') },
    { path: '/jobs/:id/print', component: () => import('./pages/print/PrintPage.vue') },
    { path: '/jobs/:id', redirect: (to) => `/jobs/${String(to.params.id)}/lines` },
    { path: '/jobs/:id/:stage', component: JobPage },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
});
