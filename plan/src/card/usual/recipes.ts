import type { ReleaseRecipe } from '@wick/contract/steps';
import { HOUR, MINUTE } from './as-step.ts';

/** Release systems; times are common practice, no source. */
export const recipes: ReleaseRecipe[] = [
  {
    id: 'wax',
    name: 'Wax',
    kind: 'wax',
    within: HOUR,
    pulls: null,
    coats: [{ name: 'Wax', count: 5, onNew: 9, apart: 8 * MINUTE, haze: 5 * MINUTE, after: 0 }],
    note: 'Thin, wiped with another cloth once it has hazed. On a large new mould more coats, and one just before the gel coat.',
  },
  {
    id: 'semi-permanent',
    name: 'Sealer and release',
    kind: 'semiPermanent',
    within: null,
    pulls: 4,
    coats: [
      { name: 'Sealer', count: 2, onNew: null, apart: 15 * MINUTE, haze: null, after: HOUR },
      { name: 'Release', count: 3, onNew: null, apart: 15 * MINUTE, haze: null, after: 45 * MINUTE },
    ],
    note: 'One application lasts for several parts; a part that holds on asks for the next one.',
  },
  {
    id: 'film-over-wax',
    name: 'Water-soluble film over wax',
    kind: 'film',
    within: null,
    pulls: null,
    coats: [
      { name: 'Wax', count: 3, onNew: 9, apart: 8 * MINUTE, haze: 5 * MINUTE, after: 8 * MINUTE },
      { name: 'Film, sprayed', count: 1, onNew: null, apart: 0, haze: null, after: 30 * MINUTE },
    ],
    note: 'Dried with gentle heat. On semi-permanent release it beads unless that is waxed first.',
  },
];
