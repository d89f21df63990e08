import { faultsOf, suggestBatches, type PlannedBatch, type ScheduleRequest } from '../src/mix/schedule.ts';

/** Draw of a strip at so many samples, kg over s. */
const strip = (mass: number, duration: number, samples = 200) => {
  const shares = Array.from({ length: samples + 1 }, (_, i) => i / samples);
  return { times: shares.map((s) => 900 + duration * s ** 2), masses: shares.map((s) => mass * s) };
};
const pot = (mass: number) => ({
  ...{ fast: strip(mass, 2400), slow: strip(mass, 5200), drawn: mass, total: mass + 0.4, floor: 0.4 },
  capacity: 20,
});
const requests: readonly [name: string, request: ScheduleRequest][] = [
  [
    'one pot, several batches',
    { pots: [pot(20)], mixers: 1, preparation: 300, spare: 60, largestMix: 6, stay: (m) => 9000 * m ** -0.3 },
  ],
  [
    'two pots, one mixer',
    {
      pots: [pot(9), pot(12)],
      mixers: 1,
      preparation: 240,
      spare: 60,
      largestMix: 8,
      stay: (m) => 9000 * m ** -0.3,
    },
  ],
  [
    'none feasible, and why',
    { pots: [pot(20)], mixers: 1, preparation: 600, spare: 60, largestMix: 3, stay: () => 1500 },
  ],
];

/** Every set of up to three batches over a coarse grid, for comparison. */
function everyPlan(request: ScheduleRequest, shares: number, times: number): number {
  const [{ total, slow }] = request.pots;
  const end = slow.times[slow.times.length - 1];
  const batch = (time: number, share: number): PlannedBatch => ({
    ...{ pot: 0, mixedAt: (end * time) / times, mass: (total * share) / shares },
    pouredAt: (end * time) / times + request.preparation,
  });
  let tried = 0;
  for (let a = 1; a <= shares; a++)
    for (let s = 0; s < times; s++)
      for (let b = 1; a + b <= shares; b++)
        for (let t = s; t < times; t++) {
          const rest = shares - a - b;
          const plan = [batch(0, a), batch(s, b), ...(rest > 0 ? [batch(t, rest)] : [])];
          faultsOf(request, plan);
          tried += 1;
        }
  return tried;
}

/** Prints how long a suggestion takes, and how much longer trying everything coarsely does. */
export function batchBench(): void {
  console.log('Suggested batches');
  for (const [name, request] of requests) {
    const start = performance.now();
    const runs = 20;
    let found = suggestBatches(request);
    for (let n = 1; n < runs; n++) found = suggestBatches(request);
    const ms = (performance.now() - start) / runs;
    const what = found.isFeasible ? `${found.batches.length} batches` : `none: ${found.hindrance}`;
    console.log(`  ${name}: ${what}, ${ms.toFixed(1)} ms (500 wanted)`);
  }
  const [, request] = requests[0];
  const start = performance.now();
  const tried = everyPlan(request, 12, 24);
  const all = performance.now() - start;
  const own = performance.now();
  suggestBatches(request);
  console.log(
    `  trying ${tried} sets of three on twelfths and 24 times: ${all.toFixed(0)} ms, ${(all / (performance.now() - own)).toFixed(0)} times as long, on a quarter of its fineness`,
  );
}
