<script setup lang="ts">
import { formatQuantity } from '@wick/core/units/format';
import { computed } from 'vue';
import { useShopStore } from '../data/shop-store.ts';

/** Top line of every page: the program, what is open (slot), the workshop. */
const shop = useShopStore();
const place = computed(
  () =>
    `${shop.shop.name} · ${formatQuantity(shop.shop.altitude, 'length', 'm')} · ${shop.show(shop.ambient, 'absolutePressure')} · ${shop.show(shop.shop.temperature, 'temperature')}`,
);
</script>

<template>
  <header>
    <RouterLink to="/" class="brand">
      <svg viewBox="0 0 24 32" width="16" height="22" aria-hidden="true">
        <path d="M12 1c4 6 9 10 9 17a9 9 0 0 1-18 0C3 11 8 7 12 1z" fill="#C77700" />
        <path d="M12 14c2 3 4 5 4 8a4 4 0 0 1-8 0c0-3 2-5 4-8z" fill="#F6F3EC" />
      </svg>
      Vivid Wick
    </RouterLink>
    <slot />
    <nav class="places" aria-label="Workshop">
      <RouterLink to="/">Jobs</RouterLink>
      <RouterLink to="/library">Library</RouterLink>
      <RouterLink to="/moulds">Moulds</RouterLink>
      <RouterLink to="/steps">Steps</RouterLink>
      <RouterLink to="/book">Book</RouterLink>
    </nav>
    <RouterLink to="/shop" class="shop" title="Shop settings">{{ place }}</RouterLink>
  </header>
</template>

<style scoped>
header {
  display: flex;
  align-items: center;
  gap: 18px;
  padding: 0 24px;
  height: 44px;
  border-bottom: 1px solid var(--rule);
}
.brand {
  display: flex;
  align-items: center;
  gap: 10px;
  font: 600 18px var(--display);
  color: var(--ink);
  text-decoration: none;
  white-space: nowrap;
}
.places {
  margin-left: auto;
  display: flex;
  gap: 14px;
}
.places a {
  color: var(--ink);
  text-decoration: none;
}
.places a:hover,
.places .router-link-exact-active {
  text-decoration: underline;
}
.shop {
  color: var(--quiet);
  text-decoration: none;
  font-size: 13px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.shop:hover {
  text-decoration: underline;
}
</style>
