import { createRouter, createWebHistory } from 'vue-router';

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', component: () => import('./jobs/JobsPage.vue') },
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
        { path: 'script', component: () => import('./print/ScriptPage.vue') },
        { path: 'print', component: () => import('./print/PrintPage.vue') },
        { path: 'sheet', component: () => import('./print/MixSheetPage.vue') },
        { path: 'mix', component: () => import('../stages/resin/MixScreen.vue') },
        { path: 'traveller', component: () => import('./print/TravellerPage.vue') },
        { path: 'log', component: () => import('./print/LogPage.vue') },
        { path: 'kit', component: () => import('./print/KitPage.vue') },
        { path: ':stage', component: () => import('./job/StagePage.vue') },
      ],
    },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
});
