import { expect, test } from '@jest/globals';
import { nearestOnLine } from '@wick/core/geometry/along';
import { polygonOf } from '@wick/core/geometry/arcs';
import { boundsOf, signedArea, type Point } from '@wick/core/geometry/polygon';
import { laidDemos } from '../test/laid-demos.ts';
import { partArea } from './figures.ts';
import { planSketchOf } from './sketch.ts';

const areaOf = (rings: readonly (readonly Point[])[]) =>
  rings.reduce((sum, ring) => sum + Math.abs(signedArea(ring)), 0);

test.each(laidDemos.map((job) => [job.name, job] as const))(
  '%s for a list: every corner within a hundred-and-fiftieth of the plan, its area, and all that is on it, in little text',
  (_, job) => {
    const outline = polygonOf(job.part.outline);
    const sketch = planSketchOf(job);
    const { minX, minY, maxX, maxY } = boundsOf(outline);
    const near = Math.max(maxX - minX, maxY - minY) / 150;
    const closed = [...sketch.outline, sketch.outline[0]!];
    for (const corner of outline) expect(nearestOnLine(corner, closed).distance).toBeLessThan(near);
    const area = areaOf([sketch.outline]) - areaOf(sketch.holes);
    expect(Math.abs(area / partArea(job.part) - 1)).toBeLessThan(0.02);
    const count = (kind: string) => job.lines.filter((line) => line.kind === kind).length;
    expect([sketch.zones.length, sketch.holes.length]).toEqual([job.zones.length, job.part.holes.length]);
    expect([sketch.feeds.length, sketch.vents.length]).toEqual([count('feed'), count('vent')]);
    expect(JSON.stringify(sketch).length).toBeLessThan(1500);
  },
);
