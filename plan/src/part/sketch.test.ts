import { expect, test } from '@jest/globals';
import { polygonOf } from '@wick/core/geometry/arcs';
import { nearestOnLine } from '@wick/core/geometry/along';
import { boundsOf } from '@wick/core/geometry/polygon';
import { demoJobs } from '../demo/jobs.ts';
import { laidOut } from '../job/laid.ts';
import { planSketchOf } from './sketch.ts';

test.each(demoJobs.map((job) => [job.name, job] as const))(
  '%s: its sketch lies within a hundred-and-fiftieth of the plan, in little text',
  (_, job) => {
    const laid = laidOut(job);
    const outline = polygonOf(laid.part.outline);
    const sketch = planSketchOf(laid);
    const { minX, minY, maxX, maxY } = boundsOf(outline);
    const near = Math.max(maxX - minX, maxY - minY) / 150;
    const closed = [...sketch.outline, sketch.outline[0]!];
    for (const corner of outline) expect(nearestOnLine(corner, closed).distance).toBeLessThan(near);
    expect(sketch.feeds).toHaveLength(laid.lines.filter(({ kind }) => kind === 'feed').length);
    expect(JSON.stringify(sketch).length).toBeLessThan(1500);
  },
);
