<script setup lang="ts">
import type { JobListItem } from '@wick/contract/api';
import { blankOf, fields, kindNames, kinds, type Field } from '@wick/plan/files/library/fields';
import { valueAt } from '@wick/plan/value-at';
import type { Material, MaterialKind } from '@wick/contract/materials';
import Button from 'ant-design-vue/es/button';
import Input from 'ant-design-vue/es/input';
import Popconfirm from 'ant-design-vue/es/popconfirm';
import { computed, onMounted, ref, shallowRef } from 'vue';
import { api } from '../../data/api.ts';
import { useLibraryStore } from '../../data/library-store.ts';
import { useShopStore } from '../../data/shop-store.ts';
import PageHeader from '../PageHeader.vue';
import EntryEditor from './EntryEditor.vue';
import LibraryFiles from './LibraryFiles.vue';
import Tabs from '../../ui/Tabs.vue';

const library = useLibraryStore();
const shop = useShopStore();
const kind = ref<MaterialKind>('fabric');
const kindTabs = computed(() =>
  kinds.map((value) => ({
    value,
    label: kindNames[value],
    note: found.value ? found.value[value] : library.ofKind(value).length,
  })),
);
const search = ref('');
const sort = ref<{ path: string; isDown: boolean }>({ path: 'name', isDown: false });
const edited = shallowRef<{ material: Material; isNew: boolean } | null>(null);
const jobs = shallowRef<JobListItem[]>([]);

onMounted(async () => {
  await library.reload();
  try {
    jobs.value = await api.listJobs();
  } catch {
    // The table stands without its last column; the header says that the server is away.
  }
});

const usersOf = (id: string) =>
  jobs.value.filter(({ materialIds }) => materialIds.includes(id)).map(({ name }) => name);
const columns = computed(() => fields[kind.value]);
const shown = computed(() => {
  const wanted = search.value.trim().toLowerCase();
  const { path, isDown } = sort.value;
  const key = (material: Material) => valueAt(material, path) ?? '';
  return library
    .ofKind(kind.value)
    .filter((material) => `${material.name} ${material.source} ${material.id}`.toLowerCase().includes(wanted))
    .sort((a, b) => {
      const [p, q] = [key(a), key(b)];
      const order =
        typeof p === 'number' && typeof q === 'number' ? p - q : String(p).localeCompare(String(q));
      return isDown ? -order : order;
    });
});
const found = computed(() =>
  search.value.trim() === ''
    ? null
    : Object.fromEntries(
        kinds.map((item) => [
          item,
          library
            .ofKind(item)
            .filter(({ name, source }) =>
              `${name} ${source}`.toLowerCase().includes(search.value.trim().toLowerCase()),
            ).length,
        ]),
      ),
);

function words(material: Material, field: Field): string {
  const value = valueAt(material, field.path);
  if (value === undefined || value === null) return '';
  if (/^(rollLength|coilLength|sheet)/.test(field.path)) return shop.showLong(value as number);
  return field.quantity ? shop.show(value as number, field.quantity) : String(value);
}
/** Of permeabilities that are a table or a model there is no single value to show. */
function isElsewhere(material: Material, field: Field): boolean {
  return (
    field.path.startsWith('permeability.') &&
    material.kind === 'fabric' &&
    !('along' in material.permeability)
  );
}
const aboutOf = (material: Material, path: string) => material.about?.[path];
const doubtWords = (doubt: number | undefined) =>
  doubt === undefined ? '' : ` ± ${Math.round(100 * doubt)} %`;
function sortBy(path: string) {
  sort.value = { path, isDown: sort.value.path === path && !sort.value.isDown };
}
const sorted = (path: string) =>
  sort.value.path !== path ? 'none' : sort.value.isDown ? 'descending' : 'ascending';

function freshIdFrom(name: string): string {
  const stem =
    name
      .toLowerCase()
      .normalize('NFKD')
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 50) || 'entry';
  let id = stem;
  for (let n = 2; library.find(id); n++) id = `${stem}-${n}`;
  return id;
}
function duplicate(material: Material) {
  const name = `${material.name.slice(0, 72)}, copy`;
  edited.value = { material: { ...material, id: freshIdFrom(name), name }, isNew: true };
}
function create() {
  edited.value = { material: blankOf(kind.value, freshIdFrom(`new-${kind.value}`)), isNew: true };
}
</script>

<template>
  <PageHeader />
  <main>
    <div class="tools head">
      <h1>What is it made of, and how sure are the numbers?</h1>
      <Input
        v-model:value="search"
        placeholder="Search name and source"
        aria-label="Search name and source"
        class="search"
        allow-clear
      />
      <Button type="primary" @click="create">New entry</Button>
      <LibraryFiles />
    </div>
    <p v-if="library.problem" class="ember" role="alert" data-testid="library-problem">
      {{ library.problem }}
    </p>
    <Tabs v-model="kind" class="tools kinds" label="Kinds of material" :tabs="kindTabs" />
    <p v-if="library.entries === null && !library.problem" class="quiet">Fetching the library …</p>
    <p v-else-if="shown.length === 0" class="quiet">
      {{
        search
          ? `No entry among ${kindNames[kind].toLowerCase()} has “${search}” in its name or source.`
          : `No ${kindNames[kind].toLowerCase()} yet. Add one, or import a table.`
      }}
    </p>
    <div v-else class="wide">
      <table class="sheet">
        <thead>
          <tr>
            <th :aria-sort="sorted('name')"><button class="plain" @click="sortBy('name')">Name</button></th>
            <th v-for="field in columns" :key="field.path" :aria-sort="sorted(field.path)">
              <button class="plain" @click="sortBy(field.path)">{{ field.label }}</button>
            </th>
            <th :aria-sort="sorted('source')">
              <button class="plain" @click="sortBy('source')">Source</button>
            </th>
            <th>Used by</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="material in shown" :key="material.id" data-testid="entry">
            <td>
              <button class="plain name" @click="edited = { material, isNew: false }">
                {{ material.name }}
              </button>
            </td>
            <td
              v-for="field in columns"
              :key="field.path"
              class="number"
              :title="aboutOf(material, field.path)?.source"
            >
              <span v-if="isElsewhere(material, field)" class="quiet">{{
                field.path.endsWith('along') ? 'table' : ''
              }}</span>
              <template v-else>
                {{ words(material, field)
                }}<span class="quiet">{{ doubtWords(aboutOf(material, field.path)?.doubt) }}</span>
                <sup v-if="aboutOf(material, field.path)?.source" class="quiet">s</sup>
              </template>
            </td>
            <td class="source quiet" :title="material.source">{{ material.source }}</td>
            <td class="quiet" :title="usersOf(material.id).join(', ')">
              {{
                usersOf(material.id).length === 0
                  ? ''
                  : usersOf(material.id).length === 1
                    ? '1 job'
                    : `${usersOf(material.id).length} jobs`
              }}
            </td>
            <td class="actions">
              <Button size="small" type="text" @click="duplicate(material)">Duplicate</Button>
              <Popconfirm
                :title="`Delete “${material.name}” from the library?`"
                ok-text="Delete"
                cancel-text="Keep"
                @confirm="library.remove(material.id)"
              >
                <Button size="small" type="text" danger :aria-label="`Delete ${material.name}`"
                  >Delete</Button
                >
              </Popconfirm>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <EntryEditor
      v-if="edited"
      :key="edited.material.id"
      :material="edited.material"
      :is-new="edited.isNew"
      @close="edited = null"
    />
  </main>
</template>

<style scoped>
main {
  padding: 14px 24px;
}
.head {
  justify-content: flex-start;
  align-items: center;
}
.search {
  width: 220px;
  margin-left: 12px;
}
.kinds {
  border-bottom: 1px solid var(--rule);
  margin: 8px 0;
  gap: 6px;
}
.wide {
  overflow: auto;
}
td {
  vertical-align: middle !important;
  white-space: nowrap;
}
th {
  white-space: nowrap;
}
th[aria-sort='ascending'] button::after {
  content: ' ↑';
}
th[aria-sort='descending'] button::after {
  content: ' ↓';
}
.name {
  font: 600 15px var(--display);
}
.source {
  max-width: 130px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.actions {
  text-align: right;
}
</style>
