import { hasDryRegion, type LayoutScore } from '../src/advice/score.ts';
import { searchLayouts } from '../src/advice/search.ts';
import { forecastFlow } from '../src/flow/forecast.ts';
import { straightenedRing } from '../src/geometry/along.ts';
import { strip, subtract, type Region } from '../src/geometry/overlay.ts';
import { contains, lineLength, signedArea, type Point } from '../src/geometry/polygon.ts';
import { framesOf, roomAt, type PartShape } from '../src/layouts/frame.ts';
import { fitTemplate, type LineDraft } from '../src/layouts/templates.ts';
import { ModelError } from '../src/model-error.ts';
import { createRandom } from '../src/random.ts';

/** Advice against a brute-force search, over random outlines. Prints seconds and ratios, asserts nothing. */
const VISCOSITY = 0.3;
/** The best straight feed uses this share of the resin's life. */
const USED = 0.5;
/** Under flow mesh, and in the strip before the vents where it is left out. */
const MESHED = { transmissibility: { xx: 4e-12, yy: 4e-12, xy: 0 }, storage: 1.4e-3 };
const BARE = { transmissibility: { xx: 1.5e-13, yy: 1.5e-13, xy: 0 }, storage: 1e-3 };
const MESH_GAP = 0.04;
/** Coarse grid that the brute-force search puts the ends of its one feed on. */
const GRID = { along: 5, across: 4 };

/** Five to nine corners round a middle, up to three times as long as wide. */
function randomOutline(random: () => number): Point[] {
  const corners = 5 + Math.floor(5 * random());
  const stretch = 1 + 2 * random();
  return Array.from({ length: corners }, (_, k) => {
    const angle = (2 * Math.PI * (k + 0.6 * random())) / corners;
    const radius = 0.35 + 0.25 * random();
    return { x: stretch * radius * Math.cos(angle), y: radius * Math.sin(angle) };
  });
}

function simulate(
  part: PartShape,
  drafts: readonly LineDraft[],
  nodeCount: number,
  gelTime: number,
): LayoutScore | null {
  const lines = drafts.map(({ kind, points, opens }, n) => ({
    id: `line-${n}`,
    name: `Line ${n}`,
    kind,
    points,
    bore: 0.012,
    hose: kind === 'feed' ? { length: 1, bore: 0.016 } : null,
    startsOpen: opens === 'start',
    actions:
      opens === 'start'
        ? []
        : [{ opening: 1, when: { kind: 'passed' as const, what: `line-${n}`, distance: 0, delay: 0 } }],
  }));
  const layer = (sheet: typeof MESHED) => ({ name: 'Averaged', ...sheet, toNext: 0, isSoft: true });
  try {
    const flow = forecastFlow({
      ...part,
      lines,
      zones: [
        {
          name: 'Base',
          outline: null,
          layers: [layer(MESHED)],
          soft: null,
          thickness: 3e-3,
          uncovered: [{ layers: [layer(BARE)], soft: null }],
        },
      ],
      coverings: [meshShortOf(part, drafts)],
      feedPressure: 1e5,
      vacuumPressure: 2e3,
      density: 1100,
      nodeCount,
      steps: nodeCount > 500 ? 40 : 20,
    });
    const area = Math.abs(signedArea(part.outline));
    const last = flow.samples[flow.samples.length - 1];
    return {
      fillTime: flow.isFilled ? VISCOSITY * flow.fillTime : Infinity,
      gelTime,
      chance: 1,
      wetShare: Math.min(1, last.stored / flow.poreVolume),
      dryShare: flow.dryRegions.reduce((sum, region) => sum + region.area, 0) / area,
      dryShareRacing: 0,
      waste: flow.vented / flow.poreVolume,
      operatorActions: lines.filter(({ kind }) => kind === 'feed').length,
      laidLength: drafts.reduce((sum, { points }) => sum + lineLength(points), 0),
    };
  } catch (error) {
    if (error instanceof ModelError) return null;
    throw error;
  }
}

/** The part less a strip along its vents. */
function meshShortOf(part: PartShape, drafts: readonly LineDraft[]): PartShape[] {
  const left = drafts
    .filter(({ kind }) => kind === 'vent')
    .reduce<Region>((region, { points }) => subtract(region, strip(points, MESH_GAP)), [part]);
  return left.map(({ outline, holes }) => ({
    outline: straightenedRing(outline, 2e-3),
    holes: holes.map((hole) => straightenedRing(hole, 2e-3)),
  }));
}

/** Best fill time of one straight feed between any two points of the grid, or at one of them, vented all round. */
function bruteForce(part: PartShape, nodeCount: number): { fillTime: number; runs: number } {
  const { long } = framesOf(part);
  const places: Point[] = [];
  for (let i = 0; i < GRID.along; i++)
    for (let j = 0; j < GRID.across; j++) {
      const p = long.toPlan(
        ((i + 0.5) * long.length) / GRID.along,
        ((j + 0.5) / GRID.across - 0.5) * long.width,
      );
      if (roomAt(part, p) > 0.02) places.push(p);
    }
  const [ring] = fitTemplate(part, {
    template: 'point',
    count: 1,
    direction: 'long',
    reversed: false,
    inset: 0.05,
  }).slice(1);
  const feeds = places.flatMap((a, i) => [
    [a],
    ...places.slice(i + 1).flatMap((b) => (isClear(part, a, b) ? [[a, b]] : [])),
  ]);
  let fillTime = Infinity;
  for (const points of feeds) {
    const score = simulate(
      part,
      [{ kind: 'feed', points, opens: 'start', onTee: false }, ring],
      nodeCount,
      Infinity,
    );
    if (score && !hasDryRegion(score)) fillTime = Math.min(fillTime, score.fillTime);
  }
  return { fillTime, runs: feeds.length };
}

const isClear = ({ outline }: PartShape, a: Point, b: Point) =>
  Array.from({ length: 9 }, (_, k) => (k + 1) / 10).every((s) =>
    contains(outline, { x: a.x + s * (b.x - a.x), y: a.y + s * (b.y - a.y) }),
  );

export async function adviceBench(count: number): Promise<void> {
  const random = createRandom(20_261);
  const COMMON = 800;
  const rows: {
    single: number;
    best: number;
    first: number;
    seconds: number;
    runs: number;
    isOrdered: boolean;
  }[] = [];
  for (let n = 0; n < count; n++) {
    const part: PartShape = { outline: randomOutline(random), holes: [] };
    const brute = bruteForce(part, 400);
    const start = performance.now();
    let runs = 0;
    const found = await searchLayouts({
      part,
      simulate: (drafts, how) => {
        runs += 1;
        return Promise.resolve(simulate(part, drafts, how === 'quick' ? 240 : COMMON, brute.fillTime / USED));
      },
    });
    const seconds = (performance.now() - start) / 1000;
    const sound = found.filter(({ score }) => !hasDryRegion(score));
    const oneFeed = sound.filter(({ drafts }) => drafts.filter(({ kind }) => kind === 'feed').length === 1);
    const least = (list: typeof found) => Math.min(...list.map(({ score }) => score.fillTime));
    const dry = found.map(({ score }) => hasDryRegion(score));
    rows.push({
      single: least(oneFeed) / brute.fillTime,
      best: least(sound) / brute.fillTime,
      first: found[0].score.fillTime / brute.fillTime,
      seconds,
      runs,
      isOrdered: dry.every((isDry, i) => isDry || !dry.slice(0, i).includes(true)),
    });
    const { single, best, first } = rows[n];
    console.log(
      `  outline ${n + 1}: best ${best.toFixed(2)}, first in rank ${first.toFixed(2)}, one feed ${single.toFixed(2)} of brute force (${brute.runs} runs); ${runs} runs in ${seconds.toFixed(1)} s`,
    );
  }
  const sorted = (pick: (row: (typeof rows)[number]) => number) => rows.map(pick).sort((a, b) => a - b);
  const words = (values: number[]) =>
    `median ${values[Math.floor(values.length / 2)].toFixed(2)}, worst ${values[values.length - 1].toFixed(2)}`;
  console.log(
    `Advice over ${count} random outlines, fill time against the best straight feed of a brute-force search:`,
  );
  console.log(
    `  best proposal ${words(sorted((row) => row.best))}; first in rank ${words(sorted((row) => row.first))}`,
  );
  console.log(`  seconds each ${words(sorted((row) => row.seconds))}`);
  console.log(
    `  a dry layout ranked above a sound one: ${rows.filter((row) => !row.isOrdered).length} of ${count}`,
  );
}
