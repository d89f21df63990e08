<script setup lang="ts">
import Button from 'ant-design-vue/es/button';
import { light, setLight } from '../../ui/light.ts';
</script>

<template>
  <Button class="light" @click="setLight(light === 'night' ? 'day' : 'night')">{{
    light === 'night' ? 'Daylight' : 'Night'
  }}</Button>
</template>
