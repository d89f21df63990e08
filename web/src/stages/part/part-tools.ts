import type { ToolRow } from '../../board/tool.ts';

export type PartTool = 'select' | 'outline' | 'hole' | 'zone' | 'feature' | 'split' | 'measure';

export const partTools: readonly ToolRow<PartTool>[] = [
  {
    id: 'select',
    key: 'S',
    name: 'Move',
    hint: 'Drag a corner, an edge’s middle to bend it, or a whole hole or zone.',
  },
  {
    id: 'outline',
    key: 'O',
    name: 'Outline',
    hint: 'Click corner after corner, or drag a box; the first corner or Enter closes.',
  },
  {
    id: 'hole',
    key: 'H',
    name: 'Hole',
    hint: 'Click corner after corner, or drag a box; the first corner or Enter closes.',
  },
  {
    id: 'zone',
    key: 'Z',
    name: 'Zone',
    hint: 'Click corner after corner, or drag a box: a place with plies of its own.',
  },
  {
    id: 'feature',
    key: 'R',
    name: 'Rise',
    hint: 'Click along a rise, step or inside corner; Enter ends the line.',
  },
  {
    id: 'split',
    key: 'X',
    name: 'Split',
    hint: 'Drag a line across the chosen zone, or across the part to cut it off.',
  },
  { id: 'measure', key: 'M', name: 'Measure', hint: 'Drag from point to point.' },
];
