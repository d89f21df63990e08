<template>
  <p class="quiet fetching" role="status">
    This page is being fetched from the server. If the server does not answer, it comes as soon as it does.
  </p>
</template>

<style scoped>
.fetching {
  padding: 12px 20px;
}
</style>
