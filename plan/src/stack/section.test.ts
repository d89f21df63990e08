import { describe, expect, test } from '@jest/globals';
import { demoShop } from '../demo/jobs.ts';
import { demoMaterials } from '../demo/materials.ts';
import { COARSE, forecastJob } from '../forecast/assess.ts';
import { jobOf, laidOut } from '../job/laid.ts';
import { partSums } from '../laminate/ply-book.ts';
import { laidDemos } from '../test/laid-demos.ts';
import { takeOffOf } from '../takeoff/take-off.ts';
import { drawEnd, placesOf, sectionAt } from './section.ts';
import { startFrom, startingStacks } from './starting.ts';
import { regionOf } from './regions.ts';
import { regionArea } from '@wick/core/geometry/overlay';

const plate = laidDemos[2]!;
const started = (id: string) =>
  laidOut(
    startFrom(
      startingStacks(plate).find((own) => own.id === id)!,
      demoMaterials,
      's',
    )(jobOf(plate)),
  );
const short = started('short');
const meshIn = (job: typeof short, place: 'edge' | 'feed' | 'vent') =>
  sectionAt(job, place).layers.find(({ kind }) => kind === 'flowMesh')!;

describe('the edge section', () => {
  test('shows every layer with its true end, from the part up, at each place', () => {
    expect(placesOf(short)).toEqual(['edge', 'feed', 'vent']);
    const { layers, line } = sectionAt(short, 'edge');
    expect(line).toBeNull();
    expect(layers.map(({ kind, to }) => [kind, to])).toEqual([
      ['peelPly', 0.02],
      ['flowMesh', -0.03],
      ['sealantTape', 0.042],
      ['bag', 0.042],
    ]);
    // The vent lies on the edge at 1.3 m, the mesh ends 50 mm before it; the feed 40 mm inside.
    expect(sectionAt(short, 'vent').line).toMatchObject({ name: 'Vent', at: expect.closeTo(0, 9) });
    expect(meshIn(short, 'vent').to).toBeCloseTo(-0.05, 9);
    expect(sectionAt(short, 'feed').line).toMatchObject({ name: 'Feed', at: expect.closeTo(-0.04, 9) });
    expect(meshIn(started('past'), 'feed').to).toBe(0.02);
  });

  test('a layer that is left off in a brake ends where the brake begins', () => {
    const gore = laidDemos[0]!;
    const at = (place: 'edge' | 'vent') =>
      sectionAt(gore, place).layers.find(({ kind }) => kind === 'flowMesh')!;
    // The brake takes the last 60 mm before the vent.
    expect(at('vent').to).toBeCloseTo(-0.06, 2);
    expect(at('vent').ends).toEqual([]);
    expect(at('edge').to).toBe(0);
  });

  test('over the highest rise every layer of the whole part goes on, and has no end to draw', () => {
    const tray = laidDemos[3]!;
    expect(placesOf(tray)).toEqual(['edge', 'step']);
    const { step, layers } = sectionAt(tray, 'step');
    expect(step).toEqual({ name: 'Side wall', height: 0.07 });
    expect(layers.map(({ kind }) => kind)).toEqual([
      'peelPly',
      'perforatedFilm',
      'bleeder',
      'breather',
      'bag',
    ]);
    expect(layers.every(({ ends, from, to }) => ends.length === 0 && from === -to)).toBe(true);
  });

  test('one list: the end of the mesh drawn further changes section, plan, ledger and forecast together', () => {
    const section = sectionAt(short, 'vent');
    const mesh = meshIn(short, 'vent');
    const after = laidOut(drawEnd(section, mesh.id, 'vent', -0.3)(jobOf(short)));
    expect(meshIn(after, 'vent').to).toBeCloseTo(-0.3, 9);
    const covered = (job: typeof short) =>
      regionArea(
        regionOf(
          job,
          job.layers.find(({ id }) => id === mesh.id)!,
        ),
      );
    // A quarter metre less of a mesh that is 0.45 m less 30 mm on both sides wide; round ends of the cut aside.
    const less = covered(short) - covered(after);
    expect(less).toBeGreaterThan(0.25 * 0.39 - 0.01);
    expect(less).toBeLessThan(0.25 * 0.39 + 0.01);
    const open = demoMaterials.find(({ id }) => id === 'mesh-open')!;
    const held = open.kind === 'flowMesh' ? open.thickness * open.porosity : NaN;
    const saved = partSums(short, demoShop).resinInConsumables - partSums(after, demoShop).resinInConsumables;
    expect(saved / (held * less)).toBeCloseTo(1, 6);
    // The piece on the roll is shorter: it ended at 1.27 m beside the vent, and ends 300 mm before it now.
    const onRoll = (job: typeof short) =>
      takeOffOf(job, { shop: demoShop, materials: demoMaterials, people: 1, hours: 1 }).items.find(
        ({ name }) => name === 'Net mesh open',
      )!.amount / 1.5;
    expect(onRoll(short) - onRoll(after)).toBeCloseTo(0.27, 1);
    const times = [short, after].map((job) => forecastJob(job, demoShop, COARSE).fillTime);
    expect(times[1]!).toBeGreaterThan(1.5 * times[0]!);
  });

  test('ends are drawn to whole millimetres; a band keeps a width, a gap is never below nothing', () => {
    const section = sectionAt(short, 'edge');
    const idOf = (kind: string) => section.layers.find((own) => own.kind === kind)!.id;
    const coversAfter = (kind: string, end: 'edge' | 'from' | 'vent', to: number) =>
      laidOut(drawEnd(section, idOf(kind), end, to)(jobOf(short))).layers.find(({ id }) => id === idOf(kind))!
        .covers;
    expect(coversAfter('peelPly', 'edge', 0.01234)).toMatchObject({ edge: 0.012 });
    expect(coversAfter('sealantTape', 'from', 0.2)).toMatchObject({ from: 0.04, to: 0.042 });
    expect(coversAfter('flowMesh', 'vent', 0.5)).toMatchObject({ vent: 0 });
  });
});
