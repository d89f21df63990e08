import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { JobFeature } from '@wick/contract/job/job';
import { demoShop } from '../demo/jobs.ts';
import { COARSE, forecastJob } from '../forecast/assess.ts';
import { jobOf, laidOut, type LaidJob } from '../job/laid.ts';
import { availablePressure } from '../laminate/stack.ts';
import { laidDemos } from '../test/laid-demos.ts';
import { bagOf } from './bag.ts';
import { asRace, bridgesOf } from './bridges.ts';
import { sectionsOf } from './sections.ts';

const [, , plate, tray] = laidDemos as [LaidJob, LaidJob, LaidJob, LaidJob];
const mm = 1e-3;
const feature = (changes: Partial<JobFeature>): JobFeature => ({
  id: 'rise',
  name: 'Wall',
  kind: 'rise',
  points: [
    { x: 0.3, y: -0.1 },
    { x: 0.3, y: 0.6 },
  ],
  height: 0.04,
  radius: 0,
  angle: null,
  ...changes,
});
const withFeatures = (...features: JobFeature[]): LaidJob => ({
  ...plate,
  part: { ...plate.part, features },
});

describe('the bag', () => {
  test('of a flat part needs no pleats, tape as long as its line, and film for plan, tape, grip and slack', () => {
    const bag = bagOf(plate, demoShop);
    expect(bag.pleats).toEqual([]);
    // Tape from 30 to 42 mm past the edge of 1.3 x 0.45 m: its middle runs 36 mm outside.
    expect(bag.tape).toBeCloseTo(2 * (1.3 + 0.072 + 0.45 + 0.072), 9);
    expect(bag.film.length).toBeCloseTo(1.3 + 2 * (0.042 + 0.03) + 0.03, 9);
    expect(bag.film.width).toBeCloseTo(0.45 + 2 * (0.042 + 0.03) + 0.03, 9);
    expect(bag.sections.map(({ developed, plan }) => developed - plan)).toEqual([0, 0]);
    expect(bag.film.joins).toBe(0);
  });

  test('of the tray: film over its walls, pleats of 1.1 times the rise at both ends of each', () => {
    const bag = bagOf(tray, demoShop);
    const across = bag.sections.find(({ name }) => name === 'Across')!;
    // Two walls of 70 mm, their feet rounded by 15: each needs 70 mm less 15 (2 - pi / 2).
    const wall = 70 - 15 * (2 - Math.PI / 2);
    expect((across.developed - across.plan) / mm).toBeCloseTo(2 * wall, 6);
    // 1.2 times that on an edge, two film heights a pleat: 1.1 x 70 mm hold more.
    expect((2 * 1.2 * wall) / 4).toBeLessThan(1.1 * 70);
    expect(bag.pleats.map(({ name, height }) => [name, height / mm])).toEqual([
      ['Side wall', expect.closeTo(77, 6)],
      ['Side wall', expect.closeTo(77, 6)],
      ['Far side wall', expect.closeTo(77, 6)],
      ['Far side wall', expect.closeTo(77, 6)],
    ]);
    const flat = bagOf({ ...tray, part: { ...tray.part, features: [] } }, demoShop);
    expect((bag.tape - flat.tape) / mm).toBeCloseTo(2 * 4 * 77, 6);
    expect((bag.film.width - flat.film.width) / mm).toBeCloseTo(2 * wall, 6);
  });

  test('a film wider than its roll is turned, or joined', () => {
    const film = (width: number) => ({
      ...plate,
      materials: plate.materials.map((own) =>
        own.kind === 'film' && own.use === 'bag' ? { ...own, rollWidth: width } : own,
      ),
    });
    expect(bagOf(film(2), demoShop).film).toMatchObject({ alongRoll: 'width', joins: 0 });
    expect(bagOf(film(0.7), demoShop).film).toMatchObject({ alongRoll: 'length', joins: 0 });
    expect(bagOf(film(0.4), demoShop).film).toMatchObject({ alongRoll: 'length', joins: 1 });
  });

  test('random rises: film is never shorter than any mould line across it, and every rise has its pleats', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            x: fc.double({ min: 0.1, max: 1.2, noNaN: true }),
            height: fc.double({ min: 0.005, max: 0.08, noNaN: true }),
            radius: fc.double({ min: 0, max: 0.004, noNaN: true }),
          }),
          { maxLength: 4 },
        ),
        (rises) => {
          const job = withFeatures(
            ...rises.map(({ x, height, radius }, n) =>
              feature({
                id: `r${n}`,
                height,
                radius,
                points: [
                  { x, y: 0 },
                  { x, y: 0.45 },
                ],
              }),
            ),
          );
          const { film, sections, pleats } = bagOf(job, demoShop);
          for (const { developed, line } of sections)
            if (line) expect(film.length).toBeGreaterThan(developed);
          expect(pleats).toHaveLength(2 * rises.length);
          pleats.forEach(({ height }, n) =>
            expect(height).toBeGreaterThanOrEqual(1.1 * rises[Math.floor(n / 2)]!.height - 1e-12),
          );
        },
      ),
    );
  });

  test('a rise that does not fit its section is said, and the rest still stands', () => {
    const job = withFeatures(feature({ radius: 0.2 }));
    const [along] = sectionsOf(job);
    expect(along!.problem).toMatch(/does not fit/);
    // Its whole height, as if nothing were rounded: the film is not cut too short for it.
    expect(along!.developed - along!.plan).toBeCloseTo(0.04, 9);
    expect(bagOf(job, demoShop).film.length).toBeGreaterThan(1.3);
    const flat = bagOf(withFeatures(), demoShop).film.length;
    expect(bagOf(job, demoShop).film.length - flat).toBeCloseTo(0.04, 9);
  });

  test('a section that somebody draws is cut as well, where it is drawn', () => {
    const drawn: LaidJob = {
      ...withFeatures(feature({})),
      part: {
        ...withFeatures(feature({})).part,
        sections: [
          {
            id: 's',
            name: 'Aslant',
            points: [
              { x: 0, y: 0 },
              { x: 0.6, y: 0.4 },
            ],
          },
        ],
      },
    };
    const own = sectionsOf(drawn).find(({ name }) => name === 'Aslant')!;
    expect(own.plan).toBeCloseTo(Math.hypot(0.6, 0.4), 9);
    expect(own.climbs.map(({ at }) => at)).toEqual([expect.closeTo(Math.hypot(0.6, 0.4) / 2, 9)]);
  });
});

describe('bridges', () => {
  test('the foot of a wall: film and friction as the closed forms have them', () => {
    const job = withFeatures(feature({ height: 0.1, radius: 0.003 }));
    const [bridge] = bridgesOf(job, demoShop);
    const pressure = availablePressure(job, demoShop);
    // The demo film: 50 um at 35 MPa.
    expect(bridge!.film).toBeCloseTo((35e6 * 50e-6) / pressure, 9);
    // Friction 0.3 on a wall of 100 mm holds plies off any radius below 30 mm.
    expect(bridge!.locked / mm).toBeCloseTo(30, 9);
    const pocket = (1 - Math.PI / 4) * (30 ** 2 - 3 ** 2);
    expect(bridge!.gap / mm).toBeCloseTo(Math.sqrt(pocket), 6);
    expect(bridge!.pocket / mm ** 2 / 0.7).toBeCloseTo(pocket, 6);
    expect(bridge!.todo.join(' ')).toMatch(/Press the plies in before pulling/);
  });

  test('a corner rounder than film and plies span is none', () => {
    expect(bridgesOf(withFeatures(feature({ height: 0.05, radius: 0.05 })), demoShop)).toEqual([]);
    expect(bridgesOf(plate, demoShop)).toEqual([]);
  });

  test('two that lie side by side are named as a pair; two that meet at a corner are not', () => {
    const at = (x: number, id: string) =>
      feature({
        id,
        name: `Wall ${id}`,
        radius: 0.004,
        points: [
          { x, y: 0 },
          { x, y: 0.45 },
        ],
      });
    const near = bridgesOf(withFeatures(at(0.5, 'a'), at(0.51, 'b')), demoShop);
    expect(near.map(({ pairedWith }) => pairedWith).sort()).toEqual(['Wall a', 'Wall b']);
    const far = bridgesOf(withFeatures(at(0.5, 'a'), at(0.8, 'b')), demoShop);
    expect(far.map(({ pairedWith }) => pairedWith)).toEqual([null, null]);
    const meeting = feature({
      id: 'c',
      radius: 0.004,
      points: [
        { x: 0.5, y: 0 },
        { x: 1, y: 0 },
      ],
    });
    expect(
      bridgesOf(withFeatures(at(0.5, 'a'), meeting), demoShop).every(({ pairedWith }) => pairedWith === null),
    ).toBe(true);
  });

  test('a pocket put in as a race lets resin run ahead in it', () => {
    const job = withFeatures(
      feature({
        height: 0.1,
        radius: 0.003,
        points: [
          { x: 0.1, y: 0.05 },
          { x: 1.1, y: 0.05 },
        ],
      }),
    );
    const [bridge] = bridgesOf(job, demoShop);
    const raced = laidOut(asRace(bridge!, 'race')(jobOf(job)));
    expect(raced.lines.at(-1)).toMatchObject({ kind: 'race', name: 'Pocket at Wall', bore: bridge!.gap });
    const [before, after] = [job, raced].map((own) => {
      const { mesh, arrival } = forecastJob(own, demoShop, COARSE);
      const far = Array.from(arrival.keys()).filter(
        (i) => Math.hypot(mesh.positions[3 * i]! - 1.05, mesh.positions[3 * i + 1]! - 0.05) < 0.05,
      );
      return Math.min(...far.map((i) => arrival[i]!));
    });
    expect(after!).toBeLessThan(0.8 * before!);
  });
});
