<script setup lang="ts">
import { sentenceOf } from '@wick/plan/files/read';
import type { MaterialVersion } from '@wick/contract/api';
import { fields, kindNames, withValue, type Field } from '@wick/plan/files/library/fields';
import { valueAt } from '@wick/plan/value-at';
import { findField } from '@wick/contract/field';
import { materialSchema, type Material } from '@wick/contract/materials';
import Button from 'ant-design-vue/es/button';
import Drawer from 'ant-design-vue/es/drawer';
import Input from 'ant-design-vue/es/input';
import { computed, onMounted, ref, shallowRef } from 'vue';
import { api } from '../../data/api.ts';
import { useLibraryStore } from '../../data/library-store.ts';
import { useShopStore } from '../../data/shop-store.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import Choice from '../../ui/Choice.vue';

/** One library entry: every value with its source and doubt, and what it was before. Nothing is kept until it is saved. */
const props = defineProps<{ material: Material; isNew: boolean }>();
const emit = defineEmits<{ close: [] }>();
const library = useLibraryStore();
const shop = useShopStore();
const draft = shallowRef<Material>(props.material);
const history = shallowRef<readonly MaterialVersion[]>([]);
const fault = ref<string | null>(null);

onMounted(async () => {
  if (props.isNew) return;
  try {
    history.value = await api.materialHistory(props.material.id);
  } catch (error) {
    fault.value = (error as Error).message;
  }
});

const isModel = computed(() => draft.value.kind === 'fabric' && !('along' in draft.value.permeability));
const rows = computed(() =>
  fields[draft.value.kind].filter((field) => !(isModel.value && field.path.startsWith('permeability.'))),
);
const NOT_SAID = 'not said';
const choicesOf = ({ choices = [], optional }: Field) =>
  [...choices, ...(optional ? [NOT_SAID] : [])].map((value) => ({ value, label: value }));
const numberAt = (path: string) => (valueAt(draft.value, path) as number | null | undefined) ?? null;
function set(path: string, value: unknown) {
  draft.value = withValue(draft.value, path, value);
}
function setAbout(path: string, changes: { source?: string; doubt?: number | null }) {
  const old = draft.value.about?.[path] ?? {};
  const next = { ...old, ...changes };
  const about: NonNullable<Material['about']> = {
    ...draft.value.about,
    [path]: {
      ...(next.source ? { source: next.source } : {}),
      ...(next.doubt == null ? {} : { doubt: next.doubt }),
    },
  };
  if (Object.keys(about[path]!).length === 0) delete about[path];
  draft.value = { ...draft.value, about } as Material;
}
const unitOf = ({ path }: Field) => (/^(rollLength|coilLength|sheet)/.test(path) ? shop.longUnit : undefined);
/** "0, 45, 90, -45" in degrees; null for blank, a list without numbers for a mat. */
const directions = computed(() => {
  if (draft.value.kind !== 'fabric') return '';
  const { directions: angles } = draft.value;
  if (!angles) return '';
  return angles.length === 0 ? 'none' : angles.map((angle) => Math.round((angle * 180) / Math.PI)).join(', ');
});
function setDirections(text: string) {
  const words = text.trim().toLowerCase();
  if (words === '') return set('directions', null);
  const angles = words === 'none' ? [] : words.split(/[,;\s]+/).map(Number);
  if (angles.some((angle) => !Number.isFinite(angle) || Math.abs(angle) > 360) || angles.length > 8) {
    fault.value = `“${text}” does not read as fibre directions. Write up to eight angles in degrees, such as 0, 90, or none for a mat.`;
    return;
  }
  fault.value = null;
  set(
    'directions',
    angles.map((angle) => (angle * Math.PI) / 180),
  );
}
const textOf = (event: Event) => (event.target as HTMLInputElement).value;
const own = computed(() =>
  materialSchema.options.find((option) => option.shape.kind.value === draft.value.kind)!,
);
const limitsAt = (path: string) => findField(own.value, path)?.limits;

async function save() {
  // A group that lost a value it needs is said by the schema, with its name.
  const checked = materialSchema.safeParse(draft.value);
  if (!checked.success) {
    fault.value = sentenceOf(checked.error).replace(' Correct it in the file and import it again.', '');
    return;
  }
  if (await library.save(checked.data)) emit('close');
  else fault.value = library.problem;
}
function changesOf(version: MaterialVersion, i: number): string {
  const before = history.value[i + 1];
  if (!before) return 'as first entered';
  const changed = (field: Field) =>
    JSON.stringify(valueAt(version.material, field.path) ?? null) !==
    JSON.stringify(valueAt(before.material, field.path) ?? null);
  const words = fields[version.material.kind].filter(changed).map((field) => {
    const was = valueAt(before.material, field.path);
    return `${field.label} was ${field.quantity && typeof was === 'number' ? shop.show(was, field.quantity) : String(was ?? 'blank')}`;
  });
  if (version.material.name !== before.material.name) words.unshift(`name was “${before.material.name}”`);
  return words.join('; ') || 'sources, doubts or lists';
}
</script>

<template>
  <Drawer
    open
    width="620"
    :title="isNew ? `New entry among ${kindNames[draft.kind].toLowerCase()}` : material.name"
    @close="emit('close')"
  >
    <div class="pair">
      <label
        ><span class="quiet">Name</span
        ><Input :value="draft.name" aria-label="Name" :maxlength="80" @update:value="set('name', $event)"
      /></label>
      <label
        ><span class="quiet">Source of the entry</span
        ><Input
          :value="draft.source"
          aria-label="Source of the entry"
          :maxlength="200"
          @update:value="set('source', $event)"
      /></label>
    </div>
    <table class="sheet">
      <thead>
        <tr>
          <th>Value</th>
          <th></th>
          <th>Doubt</th>
          <th>Where from</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="field in rows" :key="field.path">
          <td>{{ field.label }}</td>
          <td>
            <QuantityInput
              v-if="field.quantity"
              hide-label
              :label="field.label"
              :quantity="field.quantity"
              :limits="limitsAt(field.path)"
              :optional="field.optional ?? false"
              :unit="unitOf(field)"
              :model-value="numberAt(field.path)"
              @update:model-value="set(field.path, $event)"
            />
            <Choice
              v-else
              size="small"
              class="choice"
              :aria-label="field.label"
              :value="String(valueAt(draft, field.path) ?? NOT_SAID)"
              :options="choicesOf(field)"
              @change="set(field.path, $event === NOT_SAID ? null : $event)"
            />
          </td>
          <td class="doubt">
            <QuantityInput
              v-if="field.quantity"
              hide-label
              optional
              :label="`Doubt of ${field.label}`"
              quantity="fraction"
              :model-value="draft.about?.[field.path]?.doubt ?? null"
              :limits="limitsAt('about.doubt')"
              @update:model-value="setAbout(field.path, { doubt: $event })"
            />
          </td>
          <td>
            <Input
              size="small"
              :value="draft.about?.[field.path]?.source ?? ''"
              :aria-label="`Source of ${field.label}`"
              placeholder="data sheet, own strip …"
              :maxlength="200"
              @change="setAbout(field.path, { source: textOf($event).trim() })"
            />
          </td>
        </tr>
      </tbody>
    </table>
    <label v-if="draft.kind === 'fabric'" class="directions">
      <span class="quiet">Fibre directions in degrees, from its own 0; none for a mat</span>
      <Input
        :value="directions"
        aria-label="Fibre directions"
        placeholder="0, 90"
        @change="setDirections(textOf($event))"
      />
    </label>
    <p v-if="isModel" class="quiet">
      Its permeability is a table or a model; change it in an exported sheet and import that.
    </p>
    <p v-if="draft.kind === 'resin'" class="quiet">
      Viscosity and gel points are set under Resin in a job, or in an exported sheet. Follow the safety data
      sheet and your site’s rules when working with it.
    </p>
    <p v-if="fault" class="ember" role="alert">{{ fault }}</p>
    <div class="tools">
      <Button type="primary" @click="save">{{ isNew ? 'Add to the library' : 'Save' }}</Button>
      <Button @click="emit('close')">Leave as it was</Button>
    </div>
    <template v-if="history.length > 0">
      <h3>History</h3>
      <table class="sheet" aria-label="History of the entry">
        <tbody>
          <tr v-for="(version, i) in history" :key="version.changedAt">
            <td class="number">
              {{
                new Date(version.changedAt).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' })
              }}
            </td>
            <td>{{ changesOf(version, i) }}</td>
            <td class="actions">
              <Button v-if="i > 0" size="small" type="text" @click="draft = version.material"
                >Take these values</Button
              >
            </td>
          </tr>
        </tbody>
      </table>
    </template>
  </Drawer>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  margin-bottom: 10px;
}
label {
  display: flex;
  flex-direction: column;
}
.quiet {
  font-size: 12px;
}
td {
  vertical-align: middle !important;
}
.directions {
  margin: 8px 0;
  max-width: 320px;
}
.doubt {
  width: 84px;
}
.choice {
  width: 130px;
}
.actions {
  text-align: right;
}
</style>
