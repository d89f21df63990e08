<script setup lang="ts">
import { useSession } from '../../compute/use-desk.ts';
import Button from 'ant-design-vue/es/button';
import Dropdown from 'ant-design-vue/es/dropdown';
import Menu from 'ant-design-vue/es/menu';
import { saveFile } from '../../ui/save-file.ts';

/** The whole layout for a plotter or another program. */
const job = useSession();
const formats = [
  { key: 'dxf', label: 'DXF, millimetres' },
  { key: 'svg', label: 'SVG, full size' },
  { key: 'geojson', label: 'GeoJSON, metres' },
];

async function save(format: string) {
  // Drawing code is fetched from the server when it is first needed.
  const { layoutDxf, layoutGeoJson, layoutSvg } = await import('@wick/plan/files/drawings/layout-out');
  const document = job.laid;
  const write = { dxf: layoutDxf, svg: layoutSvg, geojson: layoutGeoJson }[format]!;
  const type = { dxf: 'image/vnd.dxf', svg: 'image/svg+xml', geojson: 'application/geo+json' }[format]!;
  saveFile(`${document.name}.${format}`, new Blob([write(document)], { type }));
}
</script>

<template>
  <Dropdown :trigger="['click']">
    <Button size="small">Save the plan as</Button>
    <template #overlay>
      <Menu :items="formats" @click="save(String($event.key))" />
    </template>
  </Dropdown>
  <RouterLink :to="`/jobs/${job.id}/print`" class="print" aria-label="Print plan and ply book"
    >Print</RouterLink
  >
</template>

<style scoped>
.print {
  font-size: 13px;
}
</style>
