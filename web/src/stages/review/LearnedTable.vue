<script setup lang="ts">
import Button from 'ant-design-vue/es/button';

/** A value that parts say something of: as it stands, as it would, and the parts behind it. */
export interface LearnedRow {
  readonly key: string;
  readonly name: string;
  /** "lets resin run 22 % worse here, 11 times", and which value that is. */
  readonly said: string;
  readonly side: string;
  readonly now: readonly string[];
  readonly next: readonly string[];
  readonly differ: string;
  readonly parts: string;
  /** Nobody has taken it or left it as it was. */
  readonly isOpen: boolean;
  readonly isTaken: boolean;
  readonly settle: (is: 'taken' | 'refused' | 'takenBack') => unknown;
}

defineProps<{ rows: readonly LearnedRow[] }>();
</script>

<template>
  <table class="sheet" aria-label="What is learned" data-testid="offers">
    <thead>
      <tr>
        <th>Entry</th>
        <th>Now</th>
        <th>From now on</th>
        <th>Parts behind it</th>
        <th></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in rows" :key="row.key">
        <td>
          <b>{{ row.name }}</b>
          <div>{{ row.said }}</div>
          <div class="quiet">{{ row.side }}</div>
        </td>
        <td class="number value">
          <div v-for="words in row.now" :key="words">{{ words }}</div>
        </td>
        <td class="number value">
          <div v-for="words in row.next" :key="words">{{ words }}</div>
          <div class="quiet small">{{ row.differ }}</div>
        </td>
        <td>{{ row.parts }}</td>
        <td class="acts">
          <template v-if="row.isOpen">
            <Button size="small" type="primary" @click="row.settle('taken')">Take it</Button>
            <Button size="small" @click="row.settle('refused')">Leave it</Button>
          </template>
          <Button v-if="row.isTaken" size="small" type="text" @click="row.settle('takenBack')"
            >Set it back</Button
          >
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.small {
  font-size: 12px;
  font-weight: 400;
}
.acts,
.value {
  white-space: nowrap;
}
.acts > * {
  margin-right: 6px;
}
td {
  vertical-align: top;
}
</style>
