import type { Stage } from './stage.ts';
import { laterComponent } from '../ui/later.ts';

/** The stages in the order of work; their place is their key, 1 to 8. Each is fetched when it is first opened. */
export const stages: readonly Stage[] = [
  {
    id: 'part',
    name: 'Part',
    question: 'What is the part, exactly?',
    component: laterComponent(() => import('./part/PartStage.vue')),
  },
  {
    id: 'laminate',
    name: 'Laminate',
    question: 'How thick, how heavy, and how does resin run in it?',
    component: laterComponent(() => import('./laminate/LaminateStage.vue')),
  },
  {
    id: 'stack',
    name: 'Stack',
    question: 'What lies on the plies, and how far?',
    component: laterComponent(() => import('./stack/StackStage.vue')),
  },
  {
    id: 'lines',
    name: 'Lines',
    question: 'Does the front reach the last corner before the resin gels?',
    component: laterComponent(() => import('./lines/LinesStage.vue')),
  },
  {
    id: 'resin',
    name: 'Resin',
    question: 'How much, in which batches, and does the bucket ever run dry?',
    component: laterComponent(() => import('./resin/ResinStage.vue')),
  },
  {
    id: 'vacuum',
    name: 'Vacuum',
    question: 'Is the bag tight enough for this part?',
    component: laterComponent(() => import('./vacuum/VacuumStage.vue')),
  },
  {
    id: 'run',
    name: 'Run',
    question: 'What now?',
    component: laterComponent(() => import('./run/RunStage.vue')),
  },
  {
    id: 'review',
    name: 'Review',
    question: 'What did we get, and what do we change?',
    component: laterComponent(() => import('./review/ReviewStage.vue')),
  },
];
