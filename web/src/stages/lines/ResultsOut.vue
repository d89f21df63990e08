<script setup lang="ts">
import { useForecast, useSession } from '../../compute/use-desk.ts';
import { csvOf, vtuOf } from '@wick/plan/files/results-out';
import { saveFile } from '../../ui/save-file.ts';
import { standalonePng, standaloneSvg } from '../../ui/svg-picture.ts';

/** Values at the nodes, or the board as it is seen, to take elsewhere. */
const job = useSession();
const forecast = useForecast();
const board = () => document.querySelector<SVGSVGElement>('.board svg')!;

function save(write: typeof csvOf, type: string, extension: string) {
  const { flow, timeline } = forecast;
  if (flow && timeline) saveAs(new Blob([write(flow, timeline)], { type }), extension);
}
const saveAs = (content: Blob, extension: string) => saveFile(`${job.laid.name}.${extension}`, content);
const saveSvg = () => saveAs(new Blob([standaloneSvg(board())], { type: 'image/svg+xml' }), 'svg');
const savePng = async () => saveAs(await standalonePng(board()), 'png');
</script>

<template>
  <span v-if="forecast.timeline" class="out quiet">
    Take out
    <button class="plain" @click="savePng">PNG</button>
    <button class="plain" @click="saveSvg">SVG</button>
    <button class="plain" @click="save(csvOf, 'text/csv', 'csv')">CSV</button>
    <button class="plain" @click="save(vtuOf, 'application/xml', 'vtu')">VTK</button>
  </span>
</template>

<style scoped>
.out {
  font-size: 13px;
  white-space: nowrap;
}
button {
  text-decoration: underline;
  margin-left: 4px;
}
</style>
