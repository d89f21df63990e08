<script setup lang="ts">
import { polygonOf } from '@wick/core/geometry/arcs';
import type { Region } from '@wick/core/geometry/overlay';
import { boundsOf } from '@wick/core/geometry/polygon';
import type { LedgerRow } from '@wick/core/ledger/resin-ledger';
import { hoseRunsOf } from '@wick/plan/layout/hoses';
import { regionsOf } from '@wick/plan/laminate/regions';
import { regionOf } from '@wick/plan/stack/regions';
import { booksOf } from '@wick/plan/laminate/books';
import { rowWords } from '@wick/plan/resin/words';
import { computed } from 'vue';
import { fitViewport, pathOf, toScreen } from '../../board/viewport.ts';
import { useSession } from '../../compute/use-desk.ts';

/** What on the plan asks for one line of the ledger. */
const props = defineProps<{ row: LedgerRow }>();
const job = useSession();
const hoses = computed(() => hoseRunsOf(job.laid).filter(({ from, to }) => from && to));
const bounds = computed(() =>
  boundsOf([
    ...polygonOf(job.laid.part.outline),
    ...job.laid.stations.map(({ place }) => place),
    ...hoses.value.flatMap(({ from, to }) => [from!, to!]),
  ]),
);
const WIDTH = 400;
const MARGIN = 16;
/** As high as the part needs, within reason. */
const size = computed(() => {
  const { minX, minY, maxX, maxY } = bounds.value;
  const height = ((maxY - minY) / Math.max(1e-6, maxX - minX)) * (WIDTH - 2 * MARGIN) + 2 * MARGIN;
  return { width: WIDTH, height: Math.max(90, Math.min(240, height)) };
});
const view = computed(() => fitViewport(bounds.value, size.value, MARGIN));
const pathsOf = (region: Region) =>
  region
    .flatMap(({ outline, holes }) => [outline, ...holes])
    .map((ring) => pathOf(view.value, polygonOf(ring), true))
    .join('');
const part = computed(() =>
  pathsOf([{ outline: job.laid.part.outline, holes: job.laid.part.holes.map(({ outline }) => outline) }]),
);
const isLit = (kind: string, id: string | null) =>
  props.row.sources.some((source) => source.kind === kind && (source.id === id || kind === 'pot'));
/** Laminates and layers that are lit, as regions. */
const lit = computed(() => {
  const { sources } = props.row;
  const regions = regionsOf(job.laid);
  const books = booksOf(job.laid);
  return sources
    .flatMap(({ kind, id }): Region[] => {
      if (kind === 'part' || kind === 'zone')
        return [regions[books.findIndex(({ zoneId }) => zoneId === id)] ?? []];
      const layer = kind === 'layer' && job.laid.layers.find((own) => own.id === id);
      return layer ? [regionOf(job.laid, layer)] : [];
    })
    .map(pathsOf)
    .join('');
});
const isHose = computed(() => props.row.what === 'hose');
</script>

<template>
  <figure>
    <svg
      :viewBox="`0 0 ${size.width} ${size.height}`"
      role="img"
      :aria-label="`What asks for ${row.name}`"
      data-testid="ledger-plan"
    >
      <path :d="part" class="part" />
      <path v-if="lit" :d="lit" class="lit" />
      <template v-for="hose in hoses" :key="`hose ${hose.id}`">
        <path
          :d="pathOf(view, [hose.from!, hose.to!], false)"
          :class="['hose', { on: isHose && (isLit('line', hose.id) || isLit('tee', hose.id)) }]"
        />
      </template>
      <path
        v-for="line in job.laid.lines.filter(({ kind }) => kind !== 'race')"
        :key="line.id"
        :d="pathOf(view, line.points, false)"
        :class="['line', line.kind, { on: isLit('line', line.id) }]"
      />
      <g v-for="station in job.laid.stations" :key="station.id">
        <circle
          :cx="toScreen(view, station.place).x"
          :cy="toScreen(view, station.place).y"
          r="6"
          :class="['station', { on: station.kind === 'pot' && isLit('pot', station.id) }]"
        />
      </g>
    </svg>
    <figcaption class="quiet">{{ rowWords(row) }}</figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
svg {
  width: 100%;
  display: block;
}
.part {
  fill: #fbfaf6;
  fill-rule: evenodd;
  stroke: var(--ink);
}
.lit {
  fill: var(--resin);
  fill-opacity: 0.34;
  fill-rule: evenodd;
  stroke: var(--resin-ink);
}
.line,
.hose {
  fill: none;
  stroke-width: 2;
  stroke-linecap: round;
}
.line.feed {
  stroke: #dcc191;
}
.line.vent {
  stroke: #9fc0c2;
}
.hose {
  stroke: var(--rule);
  stroke-dasharray: 4 3;
}
.line.on {
  stroke-width: 6;
  stroke: var(--resin);
}
.line.vent.on {
  stroke: var(--tide);
}
.hose.on {
  stroke: var(--resin);
  stroke-width: 5;
}
.station {
  fill: var(--sheet);
  stroke: var(--quiet);
}
.station.on {
  fill: var(--resin);
}
figcaption {
  font-size: 12px;
}
</style>
