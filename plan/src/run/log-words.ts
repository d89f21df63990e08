import type { Entry, EntryBody } from '@wick/contract/run/run';
import { dueWords } from '../card/timers.ts';
import { touchLabel } from '../card/surface.ts';
import { bubbleWords, faultNames, schoolWords, warmingWords } from '../infusion/names.ts';
import type { LogWriting, WordsOf } from './log-writing.ts';
import { reviewWords } from '../review/log-words.ts';

const shown = { found: 'leak found', sealed: 'sealed', sound: 'sound' } as const;
const verdicts = { passes: 'passes', leaks: 'leaks', cannotTell: 'cannot tell yet' } as const;
const why = (text: string) => (text === '' ? '' : `: ${text}`);

/** Every kind of entry in a line, as somebody would have written it down. */
const words: WordsOf<EntryBody['kind']> = {
  attach: ({ instrumentId, place }, { instrumentName }) =>
    `${instrumentName(instrumentId)} hung up at the ${place}`,
  detach: ({ instrumentId }, { instrumentName }) => `${instrumentName(instrumentId)} taken off`,
  pull: () => 'Pump on the bag',
  shut: () => 'Bag shut off from the pump',
  letGo: () => 'Air let into the bag',
  step: ({ wanted, feed, worked }, { show }) =>
    `Pulled to ${wanted === null ? 'where it stands' : show(wanted, 'absolutePressure')}, feed ${feed}${why(worked)}`,
  judged: ({ verdict, duration }, { show }) =>
    `Drop test over ${show(duration, 'duration')}: ${verdicts[verdict]}`,
  looked: ({ place, state, how }) => `${place}: ${shown[state]}, by ${how}`,
  listen: () => 'Listener held to a place',
  clamped: ({ lineIds }) => (lineIds.length === 0 ? 'Clamps off' : `Clamps on ${lineIds.length} lines`),
  expansion: ({ volume, before, after }, { show }) =>
    `Air of ${show(volume, 'volume')} let in: ${show(before, 'absolutePressure')} became ${show(after, 'absolutePressure')}`,
  watch: ({ watcher }) => `${watcher} watches`,
  watchEnds: () => 'Watch ended',
  alarm: ({ cause, instrumentId }, { instrumentName }) =>
    `Alarm: ${cause} at ${instrumentName(instrumentId)}`,
  mixBegun: ({ number, count, resin, hardener, lots }, { show }) =>
    `Batch ${number} of ${count} begun: ${show(resin, 'mass')} of resin${lots.resin && ` (${lots.resin})`}, ${show(hardener, 'mass')} of hardener${lots.hardener && ` (${lots.hardener})`}`,
  tared: ({ value }, { show }) => `Scale set to zero at ${show(value, 'mass')}`,
  contact: () => 'Resin and hardener have met',
  poured: ({ what, mass }, { show }) => `${show(mass, 'mass')} of ${what} poured`,
  mixStep: ({ step }) =>
    ({
      stirred: 'Stirred',
      secondBucket: 'Poured over into a clean bucket',
      degassed: 'Degassed',
      inPot: 'In the pot',
    })[step],
  hand: ({ does }) => `Rehearsal, at the scale: ${does}`,
  answered: () => 'Alarm answered',
  trouble: ({ what }) => `Rehearsal: ${what}`,
  note: ({ text }) => text,
  struck: ({ entryId, why: reason }, writing) => {
    const struck = writing.find(entryId);
    return `Struck out “${struck ? logWords(struck, writing) : entryId}”${why(reason)}`;
  },
  done: ({ title }) => title,
  skipped: ({ title, why: reason }) => `Left out: ${title}${why(reason)}`,
  overruled: ({ title, why: reason }) => `Went on past “${title}”${why(reason)}`,
  timer: ({ word, opens, closes }, { show }) =>
    `Clock “${word}”: ${show(opens, 'duration')}${closes === null ? '' : `, closes after ${show(closes, 'duration')}`}`,
  timerEnds: ({ timerId }, { find }) => `Clock${clockName(find(timerId))} ended`,
  due: ({ timerId, what }, { find }) => `${dueWords[what]}${clockName(find(timerId))}`,
  warmth: ({ temperature }, { show }) => `${show(temperature, 'temperature')} where the part lies`,
  comb: ({ pass, film }, { show }) => `Comb after pass ${pass}: ${show(film, 'thickness')}`,
  touched: (body) => `Touched: ${touchLabel(body).toLowerCase()}`,
  photo: ({ caption }) => `Picture${why(caption)}`,
  planTaken: ({ number, differences }) =>
    `Goes on by plan ${number}${differences.length > 0 ? `: ${differences.join('; ')}` : ''}`,
  mixed: ({ mass }, { show }) => `Resin and hardener met${mass === null ? '' : `: ${show(mass, 'mass')}`}`,
  front: ({ x, y }, { show }) => `Front at ${show(x, 'length')}, ${show(y, 'length')}`,
  valve: ({ lineId, opening }, { lineName }) =>
    `${lineName(lineId)} ${opening === 0 ? 'clamped' : opening === 1 ? 'opened' : `throttled to ${Math.round(100 * opening)} %`}`,
  bubbles: ({ where }) => `Bubbles ${bubbleWords[where]}`,
  batchPoured: ({ mass }, { show }) => `${show(mass, 'mass')} poured into the pot`,
  potLeft: ({ mass }, { show }) => `${show(mass, 'mass')} left in the pot`,
  decided: ({ title, gain }) => `Decided: ${title}${why(gain)}`,
  school: ({ is }) => `Stop: ${schoolWords[is].toLowerCase()}`,
  allWet: () => 'All of it is wet',
  fault: ({ fault, did }) => `${faultNames[fault]}${why(did)}`,
  warming: ({ is, temperature }, { show }) =>
    is === 'none'
      ? 'Warming taken away'
      : `${warmingWords[is]}${temperature === null ? '' : `, set to ${show(temperature, 'temperature')}`}`,
  ...reviewWords,
};
const clockName = (entry: Entry | undefined) => (entry?.body.kind === 'timer' ? ` “${entry.body.word}”` : '');

/** An entry in a line. */
export function logWords({ body }: Entry, writing: LogWriting): string {
  return (words[body.kind] as (body: EntryBody, writing: LogWriting) => string)(body, writing);
}

/** What is of use to a machine, and clutters a page. */
const QUIET: readonly EntryBody['kind'][] = ['listen', 'hand', 'timer', 'tared', 'attach'];
export const isQuiet = ({ body }: Entry): boolean => QUIET.includes(body.kind);
