import type { ToolRow } from '../../board/tool.ts';

export type LineTool = 'select' | 'feed' | 'vent' | 'race' | 'mesh' | 'brake' | 'fitting' | 'mark' | 'probe';

export const lineTools: readonly ToolRow<LineTool>[] = [
  {
    id: 'select',
    key: 'S',
    name: 'Move',
    hint: 'Drag a line or its ends; double-click a line to bend it; point to read the front.',
  },
  { id: 'feed', key: 'F', name: 'Feed', hint: 'Drag to draw a feed line, or click for a feed point.' },
  { id: 'vent', key: 'V', name: 'Vent', hint: 'Drag to draw a vent line, or click for a vent point.' },
  { id: 'race', key: 'E', name: 'Race', hint: 'Drag along an edge where resin runs ahead in a gap.' },
  { id: 'mesh', key: 'X', name: 'Mesh', hint: 'Drag a box: flow mesh then lies only where such areas are.' },
  {
    id: 'brake',
    key: 'B',
    name: 'Brake',
    hint: 'Drag a box: a strip without mesh that slows the resin before a vent.',
  },
  { id: 'fitting', key: 'T', name: 'Fitting', hint: 'Click where pot, pump or tee stands; hoses run to it.' },
  { id: 'mark', key: 'M', name: 'Mark', hint: 'Click where the front is to be timed.' },
  { id: 'probe', key: 'P', name: 'Probe', hint: 'Click to pin a place: its history stands under Probes.' },
];
