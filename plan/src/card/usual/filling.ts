import type { Step } from '@wick/contract/steps';
import { HOUR, MINUTE, SHEET, STATED_AT, UNDER_BAG, step } from './as-step.ts';

export const leakCheck: Step[] = [
  step(
    { id: 'pull', phase: 'leakCheck', title: 'Pull down, stage' },
    {
      why: 'Film is led into each corner while it still gives way.',
      caution: 'No glass under vacuum: it bursts inward.',
      takes: ['Pump', 'Gauge'],
      lasts: 10 * MINUTE,
      each: 'pull',
      processes: UNDER_BAG,
    },
  ),
  step(
    { id: 'drop-test', phase: 'leakCheck', title: 'Drop test: shut the bag off and read' },
    {
      why: 'A leak found now costs tape; found in the fill it costs the part.',
      takes: ['Gauge on the bag', 'Listener'],
      who: 'one person',
      lasts: 20 * MINUTE,
      processes: ['infusion', 'closedMould'],
    },
  ),
];

export const filling: Step[] = [
  step(
    { id: 'lots', phase: 'mix', title: 'Fetch resin and hardener, look at their dates, roll and warm them' },
    {
      why: 'What stood cold or long has settled or crystallised.',
      takes: ['Resin', 'Hardener'],
      lasts: 10 * MINUTE,
      processes: ['infusion', 'wetLayup', 'closedMould'],
    },
  ),
  step(
    { id: 'mix', phase: 'mix', title: 'Weigh and mix' },
    {
      why: 'By the sheet, on a scale; sides and bottom scraped, then over into a clean bucket.',
      caution: `Hardener on skin and in eyes; a full pot can smoke and burn: outside, on something that does not burn; ${SHEET}.`,
      takes: ['Scale', 'Two buckets', 'Stick', 'Mix sheet'],
      who: 'one person, undisturbed',
      lasts: 4 * MINUTE,
      each: 'batch',
      processes: ['infusion', 'wetLayup', 'closedMould'],
    },
  ),
  step(
    { id: 'wet-out', phase: 'infuse', title: 'Wet ply by ply, rolled in, never pulled' },
    {
      why: 'Resin that pools in a fingerprint on the peel ply is enough; none is too little.',
      caution: `Epoxy sensitises skin for good: gloves, sleeves; ${SHEET}.`,
      takes: ['Rollers', 'Squeegee'],
      who: 'two people',
      lasts: 20 * MINUTE,
      processes: ['wetLayup'],
    },
  ),
  step(
    { id: 'valve', phase: 'infuse', title: 'Valve:' },
    {
      why: 'Its trigger is the front, not the clock.',
      takes: ['Clamps', 'Marker'],
      who: 'one at the valves, one at the front',
      lasts: MINUTE,
      each: 'valve',
      processes: ['infusion', 'closedMould'],
    },
  ),
  step(
    { id: 'vacuum-slowly', phase: 'infuse', title: 'Bring the vacuum up slowly' },
    {
      why: 'Over foam and honeycomb, to half and no further.',
      takes: ['Pump', 'Gauge'],
      lasts: 10 * MINUTE,
      processes: ['wetLayup', 'bonding'],
    },
  ),
];

export const afterwards: Step[] = [
  step(
    { id: 'hold', phase: 'cure', title: 'Hold the vacuum until it has gelled at its coldest place' },
    {
      why: 'A pump that stops before lets air, and resin from the catch pot, back in: somebody watches.',
      caution: `Blankets and lamps: limits, and never near solvent; ${SHEET}.`,
      takes: ['Watch with a name', 'Thermometer'],
      who: 'the watch, by name',
      lasts: 5 * MINUTE,
      wait: { word: 'Cured enough to debag', opens: 12 * HOUR, closes: null, temperature: STATED_AT },
    },
  ),
  step(
    { id: 'debag', phase: 'debag', title: 'Take off bag, lines and peel ply' },
    {
      why: 'Peel low and along the longer side; hold the part down.',
      caution: 'Cured edges and strands cut: gloves and eyes.',
      takes: ['Knife', 'Bin'],
      lasts: 20 * MINUTE,
      processes: UNDER_BAG,
      photo: true,
    },
  ),
  step(
    { id: 'demould', phase: 'demould', title: 'Flash off, wedges, air at the edge, then patience' },
    {
      why: 'A part that waits longer comes off more easily.',
      caution: 'Compressed air: eyes and hearing; flash is sharp.',
      takes: ['Wedges', 'Air line'],
      who: 'two people',
      lasts: 20 * MINUTE,
    },
  ),
  step(
    { id: 'trim', phase: 'trim', title: 'Trim to the line' },
    {
      why: 'Weighing and fitting both ask which edge was meant.',
      caution: `Dust: mask and extraction; carbon conducts; ${SHEET}.`,
      takes: ['Cutter', 'Template'],
      lasts: 30 * MINUTE,
    },
  ),
  step(
    { id: 'weigh', phase: 'weigh', title: 'Weigh it, flange on or off, and say which' },
    {
      why: 'Weight against plan tells starved from heavy today.',
      takes: ['Scale', 'Thickness gauge', 'Tape'],
      lasts: 10 * MINUTE,
      photo: true,
    },
  ),
];
