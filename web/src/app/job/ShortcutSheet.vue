<script setup lang="ts">
import Modal from 'ant-design-vue/es/modal';

const emit = defineEmits<{ close: [] }>();
const groups = [
  {
    name: 'Everywhere in a job',
    keys: [
      ['1 to 8', 'go to a stage'],
      ['Ctrl Z, Ctrl Shift Z', 'undo, redo; a drag is one step'],
      ['Wheel or two fingers, Alt drag', 'zoom the plan, slide it'],
      ['Space, comma, full stop', 'play the front, a minute back, a minute on'],
      ['Arrows on the fuse', 'one minute back or on; Page keys ten; Esc whole forecast'],
      ['Esc', 'give up a drag, a drawing, or what is typed in a field'],
      ['?', 'this sheet'],
    ],
  },
  {
    name: 'Part',
    keys: [
      ['S, O, H, Z, R, X, M', 'move, draw the outline, a hole, a zone, a rise; split; measure'],
      ['Enter, Backspace', 'close what is drawn; take its last corner back'],
      ['Alt while moving', 'no snapping'],
      ['Tab, then arrows', 'move the focused corner by 10 mm, with Shift by 1 mm'],
      ['Arrows, Delete', 'move or remove the chosen hole or zone; the focused corner'],
      ['Double-click an edge', 'put a corner into it'],
    ],
  },
  {
    name: 'Laminate',
    keys: [
      ['Tab to a ply, Alt and arrows', 'move it up or down'],
      ['Arrows, Delete', 'go to the next ply, take it out'],
    ],
  },
  {
    name: 'Lines',
    keys: [
      ['S, F, V, E', 'move, draw a feed, a vent, a race edge'],
      ['X, B, T, M, P', 'mesh area, brake, pot or pump or tee, mark, probe'],
      ['Shift while drawing, Alt', 'level or upright; no snapping'],
      ['Double-click a line', 'put a corner into it'],
      ['Tab, then arrows, Delete', 'move or remove the focused line, mark or fitting'],
    ],
  },
  {
    name: 'Resin',
    keys: [['Tab to a batch, arrows', 'mix it a minute earlier or later']],
  },
];
</script>

<template>
  <Modal open transition-name="" mask-transition-name="" title="Keys" :footer="null" @cancel="emit('close')">
    <template v-for="group in groups" :key="group.name">
      <h3>{{ group.name }}</h3>
      <table class="sheet">
        <tbody>
          <tr v-for="[key, meaning] in group.keys" :key="key">
            <td class="number key">{{ key }}</td>
            <td>{{ meaning }}</td>
          </tr>
        </tbody>
      </table>
    </template>
  </Modal>
</template>

<style scoped>
.key {
  width: 190px;
}
</style>
