import { demoJobs } from '../../demo/jobs.ts';
import type { Job } from '@wick/contract/job/job';

/** Job files broken in different ways, and a part of the sentence each must be answered with; for tests of every way in. */
export function brokenJobFiles(): { name: string; text: string; says: string }[] {
  const job = demoJobs[0]!;
  const text = JSON.stringify(job);
  const changed = (change: (copy: Job) => void) => {
    const copy = JSON.parse(text) as Job;
    change(copy);
    return JSON.stringify(copy);
  };
  return [
    { name: 'empty', text: '', says: 'The file is empty' },
    { name: 'cut off', text: text.slice(0, 900), says: 'is not complete JSON' },
    { name: 'another kind of file', text: '{"hello": [1, 2, 3]}', says: 'not a job' },
    {
      name: 'a newer version',
      text: changed((copy) => Object.assign(copy, { version: 99 })),
      says: 'newer version (99',
    },
    {
      name: 'no outline',
      text: changed((copy) => Object.assign(copy.part, { outline: [] })),
      says: 'an outline needs three corners',
    },
    {
      name: 'text for a number',
      text: changed((copy) => Object.assign(copy.part.outline[2]!, { x: 'wide' })),
      says: 'At part › outline › 3 › x',
    },
    {
      name: 'a field nobody knows',
      text: changed((copy) => Object.assign(copy, { surprise: true })),
      says: 'Remove "surprise"',
    },
    {
      name: 'an outline that crosses itself',
      text: changed((copy) =>
        Object.assign(copy.part, {
          outline: [
            { x: 0, y: 0 },
            { x: 1, y: 1 },
            { x: 1, y: 0 },
            { x: 0, y: 1 },
          ],
        }),
      ),
      says: 'crosses itself between edge 1 and edge 3',
    },
    {
      name: 'a ply of a material it does not hold',
      text: changed((copy) => Object.assign(copy.laminate.plies[1]!, { materialId: 'gone' })),
      says: 'Ply 2 refers to "gone"',
    },
    {
      name: 'two lines with one id',
      text: changed((copy) => Object.assign(copy.layouts[0]!.lines[1]!, { id: 'feed-1' })),
      says: '"feed-1" is used twice',
    },
    {
      name: 'an opening that waits for a line that is gone',
      text: changed((copy) => Object.assign(copy.layouts[0]!.lines[1]!.actions[0]!.when, { what: 'gone' })),
      says: 'waits for "gone", which is not there',
    },
    {
      name: 'a feed on a tee that is gone',
      text: changed((copy) => Object.assign(copy.layouts[0]!.lines[0]!, { tee: 'tee-9' })),
      says: 'Feed 1 hangs on the tee "tee-9"',
    },
    {
      name: 'no layout',
      text: changed((copy) => Object.assign(copy, { layouts: [] })),
      says: 'a job has at least one layout',
    },
    {
      name: 'a current layout that is gone',
      text: changed((copy) => Object.assign(copy, { currentLayoutId: 'layout-x' })),
      says: 'The layout worked on is "layout-x"',
    },
    {
      name: 'a hose of 150 m',
      text: changed((copy) => Object.assign(copy.resin, { hoseLength: 150 })),
      says: 'At resin › hoseLength',
    },
    {
      name: 'results that are none',
      text: changed((copy) => Object.assign(copy, { results: [{ layoutId: 'layout-a', key: 'short' }] })),
      says: 'In results: At 1 › key: a key is sixteen hexadecimal digits',
    },
    {
      name: 'a negative areal weight',
      text: changed((copy) => Object.assign(copy.materials[0]!, { arealWeight: -0.85 })),
      says: 'arealWeight',
    },
    {
      name: 'a fibre volume over the packing limit',
      text: changed((copy) => Object.assign(copy.laminate, { fibreVolumeFraction: 0.95 })),
      says: 'fibreVolumeFraction',
    },
    {
      name: 'a part of zero area',
      text: changed((copy) =>
        Object.assign(copy.part, {
          outline: [
            { x: 0, y: 0 },
            { x: 1, y: 0 },
            { x: 2, y: 0 },
          ],
        }),
      ),
      says: 'encloses no area',
    },
  ];
}
