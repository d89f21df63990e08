import { createRouter, createWebHistory } from 'vue-router';
import { later } from '../ui/leisure.ts';
import JobsPage from './jobs/JobsPage.vue';

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', component: JobsPage },
    { path: '/enter', component: () => import('./EnterPage.vue') },
    { path: '/shop', component: () => import('./shop/ShopPage.vue') },
    { path: '/library', component: () => import('./library/LibraryPage.vue') },
    { path: '/steps', component: () => import('./steps/StepsPage.vue') },
    { path: '/book', component: () => import('./book/BookPage.vue') },
    { path: '/moulds', component: () => import('./MouldsPage.vue') },
    {
      path: '/jobs/:id',
      component: () => import('./job/JobFrame.vue'),
      children: [
        { path: '', redirect: (to) => `/jobs/${String(to.params.id)}/lines` },
        { path: 'script', component: later(() => import('./print/ScriptPage.vue')) },
        { path: 'print', component: later(() => import('./print/PrintPage.vue')) },
        { path: 'sheet', component: later(() => import('./print/MixSheetPage.vue')) },
        { path: 'mix', component: later(() => import('../stages/resin/MixScreen.vue')) },
        { path: 'traveller', component: later(() => import('./print/TravellerPage.vue')) },
        { path: 'log', component: later(() => import('./print/LogPage.vue')) },
        { path: 'kit', component: later(() => import('./print/KitPage.vue')) },
        { path: ':stage', component: () => import('./job/StagePage.vue') },
      ],
    },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
});
