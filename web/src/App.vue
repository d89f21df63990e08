<script setup lang="ts">
import { ConfigProvider } from 'ant-design-vue';
import { onMounted } from 'vue';
import { useShopStore } from './state/shop-store.ts';
import { antTheme } from './theme.ts';

const shop = useShopStore();
onMounted(() => shop.load());
</script>

<template>
  <ConfigProvider :theme="antTheme" :auto-insert-space-in-button="false">
    <RouterView />
  </ConfigProvider>
</template>
