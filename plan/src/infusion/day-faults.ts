import type { DayFault } from '@wick/contract/run/infusion-bodies';
import { WEAK_DRIVE } from './live-clock.ts';
import { LIKELY, type Reforecast } from './reforecast.ts';
import type { ResinLeft } from './resin-left.ts';
import { faultNames } from './names.ts';

/** What to do about a fault, in this order, with the hazard where it is. Common practice, no source. */
export interface FaultSheet {
  readonly fault: DayFault;
  readonly name: string;
  readonly tells: string;
  readonly steps: readonly string[];
  /** The step that stands in for what failed; none where nothing does. */
  readonly mends: number | null;
  readonly caution: string;
}

const sheet = (
  fault: DayFault,
  tells: string,
  steps: readonly string[],
  caution: string,
  mends: number | null = null,
): FaultSheet => ({
  ...{ fault, name: faultNames[fault], tells, steps, caution, mends },
});
const SHEET = 'follow the safety data sheet and your site’s rules';

export const faultSheets: readonly FaultSheet[] = [
  sheet(
    'pumpStopped',
    'Its tone is gone; the gauge climbs.',
    [
      'Shut the valve between bag and catch pot at once.',
      'Leave the feed as it is: the bag holds on its own for as long as the leak allows.',
      'Plug, fuse, oil, hose off the pump: look in this order, one minute.',
      'Second pump, or the house line, onto the same valve; pull the hose down first, then open.',
      'It will not run: shut the feed, shut the vent, and let it gel as it stands.',
    ],
    'Resin in the catch pot goes back into the part when air comes in: the valve first.',
    3,
  ),
  sheet(
    'leakInFill',
    'Bubbles at the front, or a fan of them from one point; the gauge climbs.',
    [
      'Do not stop the feed: follow the bubbles back to where they begin.',
      'Press the foot of every pleat near there, then the tape laps at the corners.',
      'Tape over it, twice as wide as it looks.',
      'Not found: listener along the tape, then a second bag film over that side.',
      'Note the place: the part is looked at there when it is out.',
    ],
    `Hands near wet resin: gloves; ${SHEET}.`,
  ),
  sheet(
    'bucketLow',
    'The hose end is about to show.',
    [
      'Throttle the feed now, to half or less.',
      'Next batch in slowly along the stick, so that no air is beaten in.',
      'None mixed: mix now; what is spread out lasts longer than what stands in the bucket.',
      'It ran dry: clamp before air reaches the part, bleed the hose into a cup, then open.',
    ],
    `A full bucket warms: mix no more than is drawn while it is cool; ${SHEET}.`,
  ),
  sheet(
    'frontStalls',
    'It has not moved since the last mark.',
    [
      'Look at the pot: hose end covered, clamp open, no kink.',
      'Look at the gauge: has the pressure gone?',
      'Feel the feed line: is the bag sucked into it? Lift the film over it.',
      'Open the next feed if the front has passed it; the reserve if not.',
      'Warm the dry end a little, never the pot.',
    ],
    'No blanket or lamp near solvent.',
  ),
  sheet(
    'race',
    'One side runs ahead along an edge.',
    [
      'Mark where it is, on both sides: the forecast needs both.',
      'Press the edge: a strip of tape, a bead of putty or a weight on the channel.',
      'Throttle the feed on that side; open the one on the slow side.',
      'Clamp the vent where it comes out, so that it does not draw past the dry middle.',
    ],
    '',
  ),
  sheet(
    'bagFloats',
    'The film is loose and soft near the inlet.',
    [
      'Pot down, level with the inlet or below it.',
      'Throttle the feed until the film lies again.',
      'Leave the vent open.',
      'Once all is wet: feed shut, vent open, and give it time.',
    ],
    '',
  ),
  sheet(
    'potWarm',
    'The pot is hand-warm or smells stronger.',
    [
      'Take the hose out of it: clamp first.',
      'Carry it outside, onto something that does not burn, away from people.',
      'Fresh batch from cold, in smaller lots.',
      'If it smokes: leave it, air, distance.',
    ],
    `It can smoke and burn; fumes harm: no water on top, ${SHEET}.`,
  ),
  sheet(
    'gelsEarly',
    'The front slows, the hose gets stiff, the last corner is dry.',
    [
      'Shut the feed: gelled resin in the line only pulls the bag.',
      'Keep the vacuum on: what is wet presses together.',
      'Mark the dry edge on the film, take a picture.',
      'Dry and small: wet it by syringe from above with a new batch while the bag still holds.',
      'Dry and large: let it cure; it is cut out and patched, or the part is given up.',
    ],
    `A syringe under vacuum draws by itself: eyes; ${SHEET}.`,
  ),
  sheet(
    'powerOut',
    'Pump, lights and heaters are off.',
    [
      'Shut the valve between bag and catch pot at once.',
      'Heaters off at the switch: they must not come back alone.',
      'Feed: shut it if it is within a hand’s breadth of the end, else leave it.',
      'A hand pump or the tank of a compressor with an ejector holds a small bag.',
      'When it is back: pull the hose down first, then open the valve.',
    ],
    'No candles: solvent and resin vapour burn.',
  ),
];

export const sheetOf = (fault: DayFault): FaultSheet => faultSheets.find((one) => one.fault === fault)!;

/** What tells how long there is; s, times since first contact. */
export interface FaultClocks {
  readonly answer: Pick<Reforecast, 'now' | 'gelTime' | 'last'> | null;
  readonly resin: Pick<ResinLeft, 'dryAt' | 'inPot'> | null;
  /** Until the bag has lost so much that it is seen in the part, with the leak at its most; null where no drop test tells. */
  readonly holds: number | null;
}

const minutes = (seconds: number) => `${Math.max(0, Math.round(seconds / 60))} min`;

/** How long there is for a fault, in words; null where the run does not tell. */
export function faultClock(fault: DayFault, { answer, resin, holds }: FaultClocks): string | null {
  switch (fault) {
    case 'pumpStopped':
    case 'powerOut':
      return holds === null ? null : `Shut off it holds about ${minutes(holds)} by the drop test.`;
    case 'bucketLow':
      return answer && resin?.dryAt != null
        ? `The hose draws air in ${minutes(resin.dryAt - answer.now)}.`
        : null;
    case 'frontStalls':
    case 'race':
    case 'gelsEarly':
    case 'leakInFill':
      return answer && answer.gelTime < Infinity ? `Gel in ${minutes(answer.gelTime - answer.now)}.` : null;
    case 'bagFloats':
    case 'potWarm':
      return null;
  }
}

/** What is read off the run, for guessing what is the matter. */
export interface Signs {
  readonly answer: Reforecast | null;
  readonly resin: ResinLeft | null;
  /** Of the planned pressure, as the gauge has it now; null without one. */
  readonly drive: number | null;
  readonly bubblesAtInlet: boolean;
}

/** s before a dry pot from which on it is said, and chance below which it is. */
const SOON = 300;
const LOST = 0.5;

/** What the run looks like having, worst first. */
export function suspected({ answer, resin, drive, bubblesAtInlet }: Signs): DayFault[] {
  const has: (DayFault | false | null)[] = [
    drive !== null && drive < WEAK_DRIVE && 'pumpStopped',
    drive !== null && drive < WEAK_DRIVE && 'leakInFill',
    (bubblesAtInlet ||
      (resin !== null && answer !== null && resin.dryAt !== null && resin.dryAt - answer.now < SOON)) &&
      'bucketLow',
    (answer?.events ?? []).some(({ event, belief }) => event.kind === 'race' && belief > LIKELY) && 'race',
    answer !== null && answer.marks.length > 0 && answer.chance < LOST && 'gelsEarly',
  ];
  return has.filter((fault): fault is DayFault => typeof fault === 'string');
}
