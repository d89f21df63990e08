import { createRandom } from '../src/random.ts';
import { showingDrop, simulatedDrop } from '../src/test/drop-tests.ts';
import { causeOf, slopeOf } from '../src/vacuum/drop-test.ts';
import { possibleRises } from '../src/vacuum/rise-doubt.ts';

const QUARTER = 900;

/** How often the interval of a leak holds the true one, and how often leak and wet core are told apart. Asserts nothing. */
export function dropTestBench(count: number): void {
  console.log('Drop tests, simulated');
  const started = performance.now();
  const random = createRandom(20);
  let held = 0;
  for (let n = 0; n < count; n++) {
    const { rise, gauge, readings } = simulatedDrop(random);
    const { low, high } = slopeOf(possibleRises(readings, gauge, { seed: n }));
    if (low <= rise.slope && rise.slope <= high) held += 1;
  }
  const each = (performance.now() - started) / count;
  console.log(
    `  95 % interval of the leak holds the true one in ${((100 * held) / count).toFixed(1)} of 100 (${count} tests, ${each.toFixed(0)} ms each)`,
  );
  for (const truth of ['leak', 'moisture'] as const) {
    let told = 0;
    for (let n = 0; n < count / 2; n++) {
      const { readings, gauge } = showingDrop(random, truth, QUARTER);
      if (causeOf(possibleRises(readings, gauge, { seed: n }), QUARTER).cause === truth) told += 1;
    }
    console.log(
      `  ${truth === 'leak' ? 'a leak' : 'a wet core'} that shows on the gauge is told as one after 15 min in ${((200 * told) / count).toFixed(0)} of 100`,
    );
  }
}
