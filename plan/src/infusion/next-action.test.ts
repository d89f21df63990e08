import { expect, test } from '@jest/globals';
import type { EntryBody } from '@wick/contract/run/run';
import { runStateOf } from '../run/state.ts';
import { infusionOf } from './infusion.ts';
import { callOf, nextActions } from './next-action.ts';
import { demo, logOf, plate, under } from './test/plate.ts';

const gore = demo('Dome gore 7');
const show = (value: number) => `${value.toFixed(1)}`;
const asked = (
  bodies: readonly (readonly [number, EntryBody])[],
  job = gore,
  more: Partial<Parameters<typeof nextActions>[0]> = {},
) =>
  nextActions({
    ...{ job, infusion: infusionOf(runStateOf(logOf(bodies)), job), answer: null, resin: null },
    ...{ shutAt: null, plannedOpen: 240, show, isPulled: true, ...more },
  });

test('first the mix, then what opens to start, then the turns of the plan by their triggers', () => {
  expect(asked([], gore, { isPulled: false }).map(({ id }) => id)).toEqual(['pull']);
  expect(asked([]).map(({ id }) => id)).toEqual(['contact']);
  const [open] = asked([[0, { kind: 'mixed', mass: null }]]);
  expect(open).toMatchObject({ title: 'Open Feed 1', at: { middle: 240 } });
  expect(open!.says).toEqual([{ kind: 'valve', lineId: 'feed-1', opening: 1, actionId: null }]);
  const begun: [number, EntryBody][] = [
    [0, { kind: 'mixed', mass: null }],
    [240, open!.says[0]!],
  ];
  const titles = asked(begun).map(({ title }) => title);
  expect(titles).toContain('Open Feed 2');
  expect(titles).toContain('See the last corner wet');
  const turned = asked([
    ...begun,
    [500, { kind: 'valve', lineId: 'feed-2', opening: 1, actionId: 'feed-2-opens' }],
  ]);
  expect(turned.map(({ title }) => title)).not.toContain('Open Feed 2');
});

test('in the order of their minutes, by the re-forecast; the shutting that the plan has is not asked twice', () => {
  const { infusion, answer } = under([]);
  const found = answer(2000);
  const actions = nextActions({
    ...{
      job: plate,
      infusion,
      answer: found,
      resin: null,
      shutAt: null,
      plannedOpen: 840,
      show,
      isPulled: true,
    },
  });
  expect(actions.filter(({ title }) => title === 'Clamp Feed' || title.startsWith('Shut'))).toHaveLength(1);
  expect(actions.map(({ at }) => at?.middle ?? Infinity)).toEqual(
    actions.map(({ at }) => at?.middle ?? Infinity).toSorted((a, b) => a - b),
  );
});

test('more resin is asked for before the pot runs dry, in time to mix it', () => {
  const resin = {
    ...{ needed: 5, poured: 3, drawn: 1, isWeighed: false, inPot: 2, short: 2, dryAt: 2000, mixBy: 1400 },
    ...{ preparation: 600, free: 1.6 },
  };
  const { infusion } = under([]);
  const first = nextActions({
    job: plate,
    infusion,
    answer: null,
    resin,
    shutAt: null,
    plannedOpen: 840,
    show,
    isPulled: true,
  })[0]!;
  expect(first).toMatchObject({ title: 'Mix 2.0 more', at: { middle: 1400 } });
});

test('all wet: the school says what is clamped, and what stays open', () => {
  const wet: [number, EntryBody][] = [
    [0, { kind: 'mixed', mass: null }],
    [240, { kind: 'valve', lineId: 'feed-1', opening: 1, actionId: null }],
    [2000, { kind: 'allWet' }],
  ];
  expect(asked(wet)).toEqual([]);
  const planned = asked(
    [...wet.slice(0, 1), [840, { kind: 'valve', lineId: 'feed-1', opening: 1, actionId: null }], wet[2]!],
    plate,
  );
  expect(planned.map(({ title }) => title)).toEqual(['Shut Feed']);
  expect(asked([...wet, [2010, { kind: 'school', is: 'keepVacuum' }]])[0]!.title).toBe('Clamp Feed 1');
  const both = asked([...wet, [2010, { kind: 'school', is: 'shutBoth' }]])[0]!;
  expect(both.title).toBe('Clamp Feed 1 and Vent');
  const shut = both.says.map((body, n): [number, EntryBody] => [2020 + n, body]);
  expect(asked([...wet, [2010, { kind: 'school', is: 'shutBoth' }], ...shut])).toEqual([]);
});

test('called three minutes ahead, one minute ahead, and now', () => {
  const at = { early: 900, middle: 1000, late: 1100 };
  expect([700, 820, 900, 940, 999, 1000, 1200].map((now) => callOf({ at }, now))).toEqual([
    null,
    180,
    180,
    60,
    60,
    0,
    0,
  ]);
  expect(callOf({ at: null }, 5)).toBeNull();
  expect(callOf({ at: { ...at, middle: Infinity } }, 5)).toBeNull();
});
