import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { z } from 'zod';
import { brokenJobFiles } from './test/broken-job-files.ts';
import { demoJobs } from './demo/jobs.ts';
import { demoMaterials } from './demo/materials.ts';
import { emptyJob, jobSchema, type Job } from './job.ts';
import { readJobFile } from './job-file.ts';
import { materialSchema } from './materials.ts';

describe('reading a job file', () => {
  test.each(demoJobs.map((job) => [job.name, job] as const))('%s comes back as it went out', (_, job) => {
    const read = readJobFile(JSON.stringify(job));
    expect(read).toEqual({ ok: true, value: job });
  });

  test('an empty job and one saved with a byte-order mark are fine', () => {
    expect(readJobFile(`\uFEFF${JSON.stringify(emptyJob('New'))}`).ok).toBe(true);
  });

  test('a file of version 3 is brought up to date: one layout, nothing pinned, hoses as they were', () => {
    const gore = demoJobs[0] as Job;
    const { layout, variants, stations, meshAreas, ...rest } = structuredClone(gore);
    expect([layout.letter, variants, stations, meshAreas].flat()).toEqual(['A']);
    const old = {
      ...rest,
      version: 3,
      forecast: { layers: false, soft: false },
      tees: [{ id: 'tee-1', name: 'Tee 1', hoseLength: 1.5, hoseBore: 0.012 }],
      lines: rest.lines.map(({ stockId, hoseId, stationId, pinned, ...line }) => {
        expect([stockId, hoseId, stationId, pinned]).toEqual([null, null, null, false]);
        return line;
      }),
    };
    const read = readJobFile(JSON.stringify(old));
    const tees = [{ id: 'tee-1', name: 'Tee 1', place: null, hoseLength: 1.5, hoseBore: 0.012 }];
    expect(read).toEqual({ ok: true, value: { ...gore, tees } });
  });

  test('a file of version 1 is brought up to date: its feeds wait as they did, its vents clamp as they did', () => {
    const gore = { ...(demoJobs[0] as Job), zones: [] };
    const { zones, marks, tees, forecast, doubt, ...rest } = structuredClone(gore);
    const { rise, ...part } = rest.part;
    const { mouldTemperature, drift, batches, ...resin } = rest.resin;
    expect([zones, marks, tees, batches].flat()).toEqual([]);
    expect([rise, mouldTemperature, drift, doubt.permeability, forecast.layers]).toEqual([
      null,
      null,
      null,
      null,
      false,
    ]);
    const old = {
      ...rest,
      version: 1,
      part,
      resin,
      lines: rest.lines.map(({ id, kind, name, points, bore, startsOpen }) => ({
        id,
        kind,
        name,
        points,
        bore,
        opens: startsOpen ? 'atStart' : 'whenReached',
        closesWhenReached: kind === 'vent',
      })),
    };
    const read = readJobFile(JSON.stringify(old));
    expect(read.ok && read.value.lines.map((line) => line.actions)).toEqual(
      gore.lines.map((line) =>
        line.kind === 'vent'
          ? [{ opening: 0, when: { kind: 'passed', what: line.id, distance: 0, delay: 0 } }]
          : line.actions,
      ),
    );
    expect(read.ok && { ...read.value, lines: [] }).toEqual({
      ...gore,
      lines: [],
      mould: null,
      showFace: null,
      part: { ...gore.part, flange: null, features: [] },
    });
  });

  test.each(brokenJobFiles())('$name: $says', ({ text, says }) => {
    const read = readJobFile(text);
    expect(read.ok).toBe(false);
    if (!read.ok) {
      expect(read.message).toContain(says);
      expect(read.message).toMatch(/\.$/);
    }
  });
});

describe('published files', () => {
  const published = (path: string): unknown =>
    JSON.parse(readFileSync(new URL(`../../${path}`, import.meta.url), 'utf8'));

  test('docs/job-file.schema.json is the schema of this version', () => {
    expect(published('docs/job-file.schema.json')).toEqual(
      JSON.parse(JSON.stringify(z.toJSONSchema(jobSchema))),
    );
  });

  test('demo/ holds the demo jobs', () => {
    expect(published('demo/dome-gore-7.wick.json')).toEqual(JSON.parse(JSON.stringify(demoJobs[0])));
    expect(published('demo/footbridge-kerb-plate.wick.json')).toEqual(
      JSON.parse(JSON.stringify(demoJobs[2])),
    );
    expect(published('demo/hydro-spinner.wick.json')).toEqual(JSON.parse(JSON.stringify(demoJobs[1])));
  });

  test('every demo material is a valid entry with a source', () => {
    for (const material of demoMaterials) expect(materialSchema.parse(material).source).not.toBe('');
  });
});
