import '@fontsource/barlow-semi-condensed/500.css';
import '@fontsource/barlow-semi-condensed/600.css';
import '@fontsource/atkinson-hyperlegible-next/400.css';
import '@fontsource/atkinson-hyperlegible-next/600.css';
import 'ant-design-vue/dist/reset.css';
import './styles.css';
import { createPinia } from 'pinia';
import { createApp } from 'vue';
import { outside } from '../data/api.ts';
import { useShopStore } from '../data/shop-store.ts';
import { unitsKey } from '../ui/units.ts';
import App from './App.vue';
import { forgetData, installForOffline } from './offline.ts';
import { router } from './router.ts';

const app = createApp(App).use(createPinia()).use(router);
app.provide(unitsKey, useShopStore());
outside.onFound = async () => {
  // Who was sent away keeps nothing of what was shown.
  void forgetData();

  // Where the page is going counts, not where it comes from.
  await router.isReady();
  const { path, fullPath } = router.currentRoute.value;
  if (path !== '/enter') void router.push({ path: '/enter', query: { to: fullPath } });
};
app.mount('#app');
installForOffline();
