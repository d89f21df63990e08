import type { Mould, MouldEvent } from '@wick/contract/mould';

const history = (...events: [string, MouldEvent['kind'], string][]): MouldEvent[] =>
  events.map(([date, kind, text], i) => ({ id: `event-${i + 1}`, date, kind, text }));

/** Moulds of the invented workshop. */
export const demoMoulds: Mould[] = [
  {
    id: 'dome-gore-mould', name: 'Dome gore mould B', material: 'Glass and vinyl ester', plies: 8, condition: 'sound',
    history: history(
      ['2026-08-03', 'coat', 'Sealer 2 coats, release 4 coats'],
      ['2026-08-05', 'pull', 'Gore 4'],
      ['2026-08-12', 'pull', 'Gore 5'],
      ['2026-09-02', 'leak', 'Pinhole in the flange, 300 mm from the foot'],
      ['2026-09-03', 'mended', 'Filled and sanded, drop test held'],
      ['2026-09-09', 'coat', 'Release 2 coats'],
      ['2026-09-16', 'pull', 'Gore 6'],
    ),
  },
  {
    id: 'spinner-mould', name: 'Spinner mould', material: 'Carbon and epoxy', plies: 6, condition: 'sound',
    history: history(['2026-06-22', 'coat', 'Wax 6 coats'], ['2026-06-24', 'pull', 'Trial']),
  },
  {
    id: 'flat-table', name: 'Long glass table', material: 'Toughened glass', plies: null, condition: 'sound',
    history: history(['2026-10-01', 'coat', 'Wax 3 coats'], ['2026-10-07', 'pull', 'Kerb plate, test']),
  },
  {
    id: 'sled-mould', name: 'Sled tray mould', material: 'Glass and polyester', plies: 3, condition: 'worn',
    history: history(
      ['2026-05-11', 'coat', 'Wax 7 coats'],
      ['2026-05-20', 'pull', 'Tray 1'],
      ['2026-05-29', 'leak', 'Hisses at the foot corner under full vacuum'],
    ),
  },
  {
    id: 'fascia-mould', name: 'Fascia mould pair', material: 'Glass and epoxy, two halves', plies: 10, condition: 'sound',
    history: history(['2026-09-28', 'coat', 'Semi-permanent, 4 coats'], ['2026-09-30', 'pull', 'Fascia 11'], ['2026-09-30', 'pull', 'Fascia 12']),
  },
];
