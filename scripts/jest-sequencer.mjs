import Sequencer from '@jest/test-sequencer';

/** The longest first: begun last, one of them would run alone on one core while the other idles. */
const LONG = [
  'server/siege/short',
  'plan/src/infusion/operator',
  'server/src/services/backup/backup',
  'plan/src/forecast/key',
  'server/src/repo/both-databases',
  'server/src/http/review',
  'plan/src/files/hostile-files',
  'cli/src/main',
];
const rankOf = ({ path }) => {
  const at = LONG.findIndex((name) => path.includes(`${name}.test.`));
  return at < 0 ? LONG.length : at;
};

/** @public Named by jest.config.js. */
export default class LongestFirst extends Sequencer {
  sort(tests) {
    return [...super.sort(tests)].sort((a, b) => rankOf(a) - rankOf(b));
  }
}
