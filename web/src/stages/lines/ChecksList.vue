<script setup lang="ts">
import { useChecks, useSession } from '../../compute/use-desk.ts';
import Button from 'ant-design-vue/es/button';

/** What practice would not do, why, and the change that mends it. */
defineProps<{ selected: string | null }>();
const emit = defineEmits<{ select: [id: string] }>();
const checks = useChecks();
const job = useSession();
</script>

<template>
  <div class="list" data-testid="checks">
    <p v-if="checks.breaks.length === 0" class="quiet">
      Nothing against this layout: every feed touches the plies, every vent has its path, the mesh stops short
      of the vents, hoses are wide enough, and everything that is to open can.
    </p>
    <table v-else class="sheet">
      <tbody>
        <tr
          v-for="(item, i) in checks.breaks"
          :key="`${item.rule} ${item.itemId} ${i}`"
          :class="{ selected: selected === item.itemId }"
          @focusin="emit('select', item.itemId)"
        >
          <td class="number sign">{{ i + 1 }}</td>
          <td>{{ item.message }}</td>
          <td class="fix">
            <Button v-if="item.fix" size="small" @click="job.apply(item.fix.apply)">{{
              item.fix.label
            }}</Button>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.sign {
  color: var(--ember);
  width: 26px;
}
.fix {
  text-align: right;
  white-space: nowrap;
}
.selected td {
  background: #f2e4c4;
}
</style>
