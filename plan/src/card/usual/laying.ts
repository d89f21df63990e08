import type { Step } from '@wick/contract/steps';
import { MINUTE, SHEET, UNDER_BAG, step } from './as-step.ts';

export const layUp: Step[] = [
  step(
    { id: 'stack-dry', phase: 'layUp', title: 'Lay the whole pile out dry and turn it over' },
    {
      why: 'Pieces then come off in the order in which they are wanted, and one that is missing shows.',
      takes: ['Cut plies', 'Cart'],
      lasts: 15 * MINUTE,
      processes: ['infusion', 'wetLayup'],
    },
  ),
  step(
    { id: 'hairs-mould', phase: 'layUp', title: 'Look for strands and hairs on the show face' },
    {
      why: 'One that is laid in is seen for as long as the part lives.',
      takes: ['Lamp', 'Tweezers'],
      lasts: 5 * MINUTE,
      each: 'mouldFace',
      photo: true,
    },
  ),
  step(
    { id: 'ply', phase: 'layUp', title: 'Lay' },
    {
      why: 'Press it into every inside corner before the next: spanned cloth is the commonest scrap.',
      caution: `Cut fibre itches and carbon dust conducts: gloves, mask, covered sockets; ${SHEET}.`,
      takes: ['Ply from the pile', 'Tack, sparingly'],
      who: 'two people',
      lasts: 8 * MINUTE,
      each: 'ply',
      processes: ['infusion', 'wetLayup', 'closedMould'],
    },
  ),
  step(
    { id: 'core', phase: 'layUp', title: 'Fit the core' },
    {
      why: 'Gaps fill with resin, and edges that stand proud print.',
      takes: ['Core pieces'],
      lasts: 20 * MINUTE,
      each: 'core',
    },
  ),
  step(
    { id: 'hairs-bag', phase: 'layUp', title: 'Look for strands and hairs on the show face' },
    {
      why: 'This face lies under the bag: what lies on it now shows through the surface.',
      takes: ['Lamp', 'Tweezers'],
      lasts: 5 * MINUTE,
      each: 'bagFace',
      photo: true,
    },
  ),
  step(
    { id: 'lay-photo', phase: 'layUp', title: 'Take a picture of the finished lay-up' },
    {
      why: 'What a later fault looked like before the bag lay on it.',
      lasts: MINUTE,
      photo: true,
    },
  ),
];

export const bagging: Step[] = [
  step(
    { id: 'layer', phase: 'bag', title: 'Lay' },
    {
      why: 'In this order, and no further than drawn.',
      takes: ['Cut pieces'],
      lasts: 6 * MINUTE,
      each: 'layer',
      processes: UNDER_BAG,
    },
  ),
  step(
    { id: 'line', phase: 'bag', title: 'Set' },
    {
      why: 'Taped down every so often, its ends shut, its port off the part.',
      takes: ['Line', 'Fittings', 'Tape'],
      lasts: 6 * MINUTE,
      each: 'line',
      processes: ['infusion'],
    },
  ),
  step(
    { id: 'fittings', phase: 'bag', title: 'Count the fittings' },
    {
      why: 'One forgotten means opening the bag again.',
      takes: ['Kit list'],
      lasts: 2 * MINUTE,
      processes: UNDER_BAG,
    },
  ),
  step(
    { id: 'film', phase: 'bag', title: 'Tack the film: middle of a side, corners, then the rest' },
    {
      why: 'The slack is then even, and pleats stand where they are wanted.',
      takes: ['Bag film', 'Sealant tape'],
      who: 'two people',
      lasts: 20 * MINUTE,
      processes: UNDER_BAG,
    },
  ),
  step(
    { id: 'pleat', phase: 'bag', title: 'Pleat' },
    {
      why: 'A little higher than the rise; its foot is where bags leak most.',
      takes: ['Sealant tape'],
      lasts: 3 * MINUTE,
      each: 'pleat',
      processes: UNDER_BAG,
    },
  ),
  step(
    { id: 'press-tape', phase: 'bag', title: 'Press the tape all round, its laps without paper' },
    {
      why: 'A strand or a fold across it is a leak.',
      takes: ['Roller'],
      who: 'one person',
      lasts: 10 * MINUTE,
      processes: UNDER_BAG,
    },
  ),
];
