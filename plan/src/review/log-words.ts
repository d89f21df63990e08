import type { WordsOf } from '../run/log-writing.ts';
import { mouldValueWords } from './mould-learning.ts';
import {
  findingNames,
  learnedNames,
  mouldSideNames,
  outcomeNames,
  patternNames,
  sideNames,
  targetNames,
} from './names.ts';

const tail = (text: string) => (text === '' ? '' : `: ${text}`);
const where = { pot: 'in the pot', cup: 'in a cup', part: 'in the part' } as const;

const learnedWords = (is: 'taken' | 'refused' | 'takenBack', value: string) =>
  is === 'taken' ? `taken, ${value}` : is === 'refused' ? 'left as it was' : 'set back';

/** What is said of a part that is out of the mould, in a line each. */
export const reviewWords: WordsOf<
  | 'finding'
  | 'mended'
  | 'pictured'
  | 'weighed'
  | 'gauged'
  | 'burned'
  | 'cupRead'
  | 'gelled'
  | 'told'
  | 'causeNamed'
  | 'lesson'
  | 'lessonSettled'
  | 'learned'
  | 'mouldLearned'
  | 'booked'
  | 'signed'
> = {
  finding: ({ is, side, pattern, note }) =>
    `${findingNames[is]}, ${sideNames[side]}${pattern === null ? '' : `, ${patternNames[pattern]}`}${tail(note)}`,
  mended: ({ findingId, did }, { find }) => {
    const finding = find(findingId)?.body;
    return `${finding?.kind === 'finding' ? findingNames[finding.is] : 'Finding'} mended: ${did}`;
  },
  pictured: () => 'Picture of a finding',
  weighed: ({ what, mass, flange, isTrimmed }, { show }) =>
    what === 'resinLeft'
      ? `${show(mass, 'mass')} of mixed resin was left`
      : `Weighs ${show(mass, 'mass')}${flange === null ? '' : `, flange ${flange}`}${isTrimmed ? ', trimmed' : ''}`,
  gauged: ({ x, y, thickness }, { show }) =>
    `${show(thickness, 'thickness')} thick at ${show(x, 'length')}, ${show(y, 'length')}`,
  burned: ({ how, mass, left }, { show }) =>
    `Coupon of ${show(mass, 'mass')} ${how === 'burned' ? 'burned off' : 'dissolved'}: ${show(left, 'mass')} left`,
  cupRead: ({ viscosity, temperature }, { show }) =>
    `Fresh resin: ${show(viscosity, 'viscosity')} at ${show(temperature, 'temperature')}`,
  gelled: ({ where: place }) => `Gelled ${where[place]}`,
  told: () => 'Question of a cause answered',
  causeNamed: ({ why }) => `Cause named${tail(why)}`,
  lesson: ({ target, text }) => `Lesson for ${targetNames[target]}: ${text}`,
  lessonSettled: ({ is }) => `Lesson ${is === 'taken' ? 'taken into a job' : 'set aside'}`,
  learned: ({ title, side, is, factor }) =>
    `${title}, ${learnedNames[side]}: ${learnedWords(is, `x ${factor.toFixed(2)}`)}`,
  mouldLearned: ({ title, side, is, value }) =>
    `${title}, ${mouldSideNames[side]}: ${learnedWords(is, mouldValueWords(side, value))}`,
  booked: ({ figures }) => `Into the book: ${outcomeNames[figures.outcome]}`,
  signed: ({ as }) => `Signed as ${as}`,
};
