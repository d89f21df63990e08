import type { Step } from '@wick/contract/steps';
import { HOUR, MINUTE, SHEET, STATED_AT, UNDER_BAG, step } from './as-step.ts';

/** The mould, and what it gets before the first ply. */
export const onMould: Step[] = [
  step(
    { id: 'inspect', phase: 'mould', title: 'Look the mould over' },
    {
      why: 'A crack, a soft spot or a leak on its record is found now, or in the part.',
      takes: ['Lamp', 'Mould record'],
      who: 'one person',
      lasts: 10 * MINUTE,
      photo: true,
    },
  ),
  step(
    { id: 'clean', phase: 'mould', title: 'Clean and polish it' },
    {
      why: 'Release lies on what is there: old resin and dust come off with the part.',
      caution: `Solvent: air, gloves, nothing that sparks; ${SHEET}.`,
      takes: ['Cleaner', 'Cloths', 'Paper 1200'],
      lasts: 20 * MINUTE,
    },
  ),
  step(
    { id: 'mask', phase: 'mould', title: 'Mask the land for the tape' },
    {
      why: 'Sealant tape does not stick on wax, release or resin.',
      takes: ['Masking tape'],
      lasts: 10 * MINUTE,
      processes: UNDER_BAG,
    },
  ),
];

export const beforeLaying: Step[] = [
  step(
    { id: 'coat', phase: 'release', title: 'Lay on' },
    {
      why: 'Corners and edges first, and once more: there a part holds on.',
      caution: `Solvent vapour: air, gloves, no flame; ${SHEET}.`,
      takes: ['Release', 'Two cloths'],
      who: 'one person',
      lasts: 5 * MINUTE,
      each: 'coat',
    },
  ),
  step(
    { id: 'gel-pass', phase: 'gelCoat', title: 'Gel coat' },
    {
      why: 'Thin passes let out their air and do not run.',
      caution: `Peroxide: eyes, and never together with accelerator. Styrene: air and no flame; ${SHEET}.`,
      takes: ['Gel coat', 'Catalyst', 'Gun or brush', 'Wet-film comb'],
      who: 'one person',
      lasts: 10 * MINUTE,
      each: 'gelPass',
      wait: {
        word: 'Gel coat is firm enough',
        opens: 25 * MINUTE,
        closes: 24 * HOUR,
        temperature: STATED_AT,
      },
    },
  ),
  step(
    { id: 'gel-comb', phase: 'gelCoat', title: 'Read the film with the comb' },
    {
      why: 'Thin places wrinkle and print, thick ones crack: read several, and mark them on the plan.',
      takes: ['Wet-film comb'],
      lasts: 5 * MINUTE,
    },
  ),
  step(
    { id: 'gel-touch', phase: 'gelCoat', title: 'Touch it' },
    {
      why: 'Tacky, with nothing left on a clean finger, it takes the next layer.',
      takes: ['Clean glove'],
      lasts: MINUTE,
    },
  ),
  step(
    { id: 'barrier', phase: 'barrier', title: 'Lay the skin coat and roll it' },
    {
      why: 'It keeps blisters and the print of the plies from the face.',
      caution: `Styrene: air and no flame. Peroxide: eyes; ${SHEET}.`,
      takes: ['Tissue and mat', 'Resin', 'Rollers'],
      lasts: 30 * MINUTE,
      wait: { word: 'Skin coat has cured', opens: 3 * HOUR, closes: 36 * HOUR, temperature: STATED_AT },
    },
  ),
  step(
    { id: 'barrier-look', phase: 'barrier', title: 'Look for air under the skin coat' },
    {
      why: 'A bubble behind the gel coat breaks open later: cut it out and fill it now.',
      caution: `Sanding dust: mask and extraction; ${SHEET}.`,
      takes: ['Lamp'],
      lasts: 10 * MINUTE,
      photo: true,
    },
  ),
];
