<script setup lang="ts">
const keys = [
  ['1 to 8', 'go to a stage'],
  ['Ctrl Z, Ctrl Shift Z', 'undo, redo'],
  ['S, F, V', 'on the lines: select and move, draw a feed, draw a vent'],
  ['Tab, then arrows', 'move the focused corner or line by 10 mm, with Shift by 1 mm'],
  ['Delete', 'remove the focused corner or line'],
  ['Wheel, Alt drag', 'zoom the plan, slide it'],
  ['Arrows on the fuse', 'one minute back or on; Page keys ten; Esc whole forecast'],
  ['Esc', 'give up a drag or what is typed in a field'],
  ['?', 'this sheet'],
];
</script>

<template>
  <table class="sheet">
    <tbody>
      <tr v-for="[key, meaning] in keys" :key="key">
        <td class="number">{{ key }}</td>
        <td>{{ meaning }}</td>
      </tr>
    </tbody>
  </table>
</template>
