<script setup lang="ts">
import Button from 'ant-design-vue/es/button';
import Input from 'ant-design-vue/es/input';
import { onMounted, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../data/api.ts';
import { useShopStore } from '../data/shop-store.ts';

/** The door: a pass phrase, the six digits that a device inside shows, or a link. */
const route = useRoute();
const router = useRouter();
const shop = useShopStore();
const word = ref('');
const name = ref('');
const message = ref<string | null>(null);
const isAsking = ref(false);

async function attempt(asked: Parameters<typeof api.enter>[0]) {
  isAsking.value = true;
  message.value = null;
  try {
    await api.enter(asked);
    await shop.load();
    const { to } = route.query;
    // Only a place within the program.
    await router.replace(typeof to === 'string' && /^\/(?!\/)/.test(to) ? to : '/');
  } catch (error) {
    message.value = (error as Error).message;
  } finally {
    isAsking.value = false;
  }
}
function enter() {
  const device = name.value.trim() || 'A device';
  const code = word.value.replaceAll(' ', '');
  void attempt(
    /^\d{6}$/.test(code)
      ? { by: 'code', code, name: device }
      : { by: 'passPhrase', passPhrase: word.value, name: device },
  );
}
onMounted(() => {
  const hash = decodeURIComponent(route.hash.slice(1));
  if (hash.startsWith('link=')) void attempt({ by: 'link', link: hash.slice(5) });
  else word.value = hash;
});
</script>

<template>
  <main>
    <h1>Vivid Wick</h1>
    <p>
      This device is not let in yet. Type the pass phrase of this workshop, or the six digits that a device
      inside shows.
    </p>
    <form class="fields" @submit.prevent="enter">
      <label>
        <span class="quiet">Pass phrase or code</span>
        <Input v-model:value="word" type="password" autocomplete="current-password" :maxlength="200" />
      </label>
      <label>
        <span class="quiet">What this device is called</span>
        <Input v-model:value="name" placeholder="Tablet at the mould" :maxlength="40" />
      </label>
      <p v-if="message" class="ember" role="alert">{{ message }}</p>
      <Button type="primary" html-type="submit" :loading="isAsking">Enter</Button>
    </form>
  </main>
</template>

<style scoped>
main {
  max-width: 420px;
  margin: 12vh auto 0;
  padding: 0 20px;
}
.fields {
  display: grid;
  gap: 12px;
}
</style>
