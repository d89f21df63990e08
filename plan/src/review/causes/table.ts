/** What may have gone wrong with a part. */
export const causeIds = [
  'leak',
  'race',
  'shutIn',
  'dryBucket',
  'gelFirst',
  'bridge',
  'starved',
  'wrongRatio',
] as const;
export type CauseId = (typeof causeIds)[number];

export interface CauseWords {
  readonly name: string;
  /** Among parts that went wrong, 0-1. Common practice, no source. */
  readonly prior: number;
  /** What would have prevented it. */
  readonly prevents: string;
}

export const causes: Readonly<Record<CauseId, CauseWords>> = {
  leak: {
    name: 'The bag leaked',
    prior: 0.24,
    prevents: 'A longer drop test, and the leak walk from the likeliest place on; leaks kept with the mould.',
  },
  race: {
    name: 'Resin raced along an edge',
    prior: 0.16,
    prevents: 'Plies cut into the edge, the gap stuffed; marks on both sides, so that it is seen in time.',
  },
  shutIn: {
    name: 'The layout shut air in',
    prior: 0.1,
    prevents: 'A vent where the fronts meet, or the feed elsewhere: look at the dry regions of the forecast.',
  },
  dryBucket: {
    name: 'The pot ran dry',
    prior: 0.1,
    prevents: 'More reserve, a pot for all of it, the draw-down watched.',
  },
  gelFirst: {
    name: 'It gelled before it was full',
    prior: 0.14,
    prevents: 'More feeds, a slower hardener, a warmer mould with a cooler pot: see the advice.',
  },
  bridge: {
    name: 'Fabric or bag bridged a corner',
    prior: 0.1,
    prevents: 'Each inside corner pressed in before the pull, and ticked; slack in the bag there.',
  },
  starved: {
    name: 'Too much resin was pressed out',
    prior: 0.08,
    prevents:
      'Less vacuum, less bleed, the mesh short of the vent; not warm, fully pulled and fully meshed at once.',
  },
  wrongRatio: {
    name: 'Mixed in a wrong ratio, or not through',
    prior: 0.08,
    prevents: 'By weight on a scale, from the sheet; sides scraped, poured over into a clean bucket.',
  },
};

export interface QuestionRow {
  readonly id: string;
  /** Questions of one group tell partly the same. */
  readonly group: string;
  readonly ask: string;
  readonly answers: readonly {
    readonly id: string;
    /** As a choice, and as what was seen. */
    readonly label: string;
    readonly seen: string;
    /** P(answer | cause) in the order of causeIds; over the answers of a question together 1. */
    readonly given: readonly number[];
  }[];
}

/** P(answer | cause), the causes in the order of causeIds. Common practice and from memory, no source: a start, the workshop's to edit. */
// prettier-ignore
export const questions: readonly QuestionRow[] = [
  {
    id: 'bubbles', group: 'air', ask: 'Were there bubbles in the fill?',
    answers: [
      { id: 'none', label: 'None', seen: 'no bubbles in the fill', given: [0.15, 0.78, 0.75, 0.08, 0.8, 0.75, 0.8, 0.82] },
      { id: 'early', label: 'At the inlet, from the first minutes', seen: 'bubbles at the inlet from the first minutes', given: [0.28, 0.07, 0.05, 0.04, 0.06, 0.05, 0.05, 0.06] },
      { id: 'late', label: 'At the inlet, late', seen: 'bubbles at the inlet late in the fill', given: [0.1, 0.06, 0.05, 0.78, 0.06, 0.05, 0.05, 0.06] },
      { id: 'outlet', label: 'In the bag or at the outlet', seen: 'bubbles in the bag or at the outlet', given: [0.47, 0.09, 0.15, 0.1, 0.08, 0.15, 0.1, 0.06] },
    ],
  },
  {
    id: 'dryPlace', group: 'dry', ask: 'Where is it dry?',
    answers: [
      { id: 'none', label: 'Nowhere', seen: 'no dry spot', given: [0.4, 0.25, 0.05, 0.12, 0.05, 0.6, 0.4, 0.8] },
      { id: 'farEnd', label: 'Where the forecast ends', seen: 'dry where the forecast ends', given: [0.2, 0.2, 0.2, 0.68, 0.8, 0.1, 0.08, 0.1] },
      { id: 'elsewhere', label: 'In one place elsewhere', seen: 'dry in a place where the forecast does not end', given: [0.1, 0.5, 0.65, 0.15, 0.12, 0.2, 0.07, 0.05] },
      { id: 'scattered', label: 'In several small places', seen: 'dry in several small places', given: [0.3, 0.05, 0.1, 0.05, 0.03, 0.1, 0.45, 0.05] },
    ],
  },
  {
    id: 'forecastShuts', group: 'layout', ask: 'Does the forecast of the plan shut air in?',
    answers: [
      { id: 'yes', label: 'Yes', seen: 'the plan’s own forecast shuts air in', given: [0.12, 0.12, 0.9, 0.12, 0.12, 0.12, 0.12, 0.12] },
      { id: 'no', label: 'No', seen: 'the plan’s own forecast shuts no air in', given: [0.88, 0.88, 0.1, 0.88, 0.88, 0.88, 0.88, 0.88] },
    ],
  },
  {
    id: 'samePlace', group: 'dry', ask: 'Was it in the same place on parts before?',
    answers: [
      { id: 'yes', label: 'Yes', seen: 'the same place as on parts before', given: [0.2, 0.75, 0.85, 0.2, 0.4, 0.7, 0.5, 0.2] },
      { id: 'no', label: 'No', seen: 'another place than on parts before', given: [0.8, 0.25, 0.15, 0.8, 0.6, 0.3, 0.5, 0.8] },
    ],
  },
  {
    id: 'pinholes', group: 'air', ask: 'Are there pinholes, and how do they lie?',
    answers: [
      { id: 'none', label: 'None', seen: 'no pinholes', given: [0.15, 0.78, 0.7, 0.55, 0.78, 0.75, 0.5, 0.7] },
      { id: 'even', label: 'Evenly spread', seen: 'pinholes evenly spread', given: [0.4, 0.12, 0.15, 0.2, 0.15, 0.12, 0.4, 0.25] },
      { id: 'fan', label: 'In a fan from one place', seen: 'pinholes in a fan from one place', given: [0.4, 0.05, 0.1, 0.2, 0.04, 0.05, 0.05, 0.03] },
      { id: 'line', label: 'In a line', seen: 'pinholes in a line', given: [0.05, 0.05, 0.05, 0.05, 0.03, 0.08, 0.05, 0.02] },
    ],
  },
  {
    id: 'weight', group: 'mass', ask: 'What does it weigh against its plan?',
    answers: [
      { id: 'light', label: 'Light', seen: 'lighter than planned', given: [0.3, 0.2, 0.3, 0.55, 0.55, 0.04, 0.9, 0.1] },
      { id: 'planned', label: 'As planned', seen: 'as heavy as planned', given: [0.63, 0.7, 0.65, 0.42, 0.42, 0.4, 0.09, 0.8] },
      { id: 'heavy', label: 'Heavy', seen: 'heavier than planned', given: [0.07, 0.1, 0.05, 0.03, 0.03, 0.56, 0.01, 0.1] },
    ],
  },
  {
    id: 'thickness', group: 'mass', ask: 'How thick is it against its plan?',
    answers: [
      { id: 'thin', label: 'Thin', seen: 'thinner than planned', given: [0.1, 0.1, 0.1, 0.25, 0.15, 0.05, 0.83, 0.1] },
      { id: 'planned', label: 'As planned', seen: 'as thick as planned', given: [0.75, 0.8, 0.8, 0.65, 0.7, 0.6, 0.16, 0.8] },
      { id: 'thick', label: 'Thick', seen: 'thicker than planned', given: [0.15, 0.1, 0.1, 0.1, 0.15, 0.35, 0.01, 0.1] },
    ],
  },
  {
    id: 'dropTest', group: 'vacuum', ask: 'What did the drop test before the mix say?',
    answers: [
      { id: 'passed', label: 'It passed', seen: 'the drop test had passed', given: [0.5, 0.94, 0.94, 0.94, 0.94, 0.93, 0.94, 0.94] },
      { id: 'leaked', label: 'It leaked, or could not tell', seen: 'the drop test had not passed', given: [0.5, 0.06, 0.06, 0.06, 0.06, 0.07, 0.06, 0.06] },
    ],
  },
  {
    id: 'pressure', group: 'vacuum', ask: 'Did the vacuum hold in the fill?',
    answers: [
      { id: 'held', label: 'It held', seen: 'the vacuum held in the fill', given: [0.15, 0.95, 0.95, 0.8, 0.95, 0.93, 0.95, 0.95] },
      { id: 'fell', label: 'It fell off', seen: 'the vacuum fell off in the fill', given: [0.85, 0.05, 0.05, 0.2, 0.05, 0.07, 0.05, 0.05] },
    ],
  },
  {
    id: 'pace', group: 'front', ask: 'How did the front run against its forecast?',
    answers: [
      { id: 'slower', label: 'Slower', seen: 'the front ran slower than forecast', given: [0.3, 0.08, 0.12, 0.2, 0.6, 0.06, 0.15, 0.25] },
      { id: 'planned', label: 'As forecast', seen: 'the front ran as forecast', given: [0.5, 0.2, 0.7, 0.6, 0.32, 0.39, 0.65, 0.55] },
      { id: 'faster', label: 'Faster', seen: 'the front ran faster than forecast', given: [0.1, 0.17, 0.13, 0.15, 0.05, 0.15, 0.15, 0.15] },
      { id: 'uneven', label: 'Ahead along one side', seen: 'the front ran ahead along one side', given: [0.1, 0.55, 0.05, 0.05, 0.03, 0.4, 0.05, 0.05] },
    ],
  },
  {
    id: 'wetInTime', group: 'front', ask: 'Was all of it wet before it gelled?',
    answers: [
      { id: 'yes', label: 'Yes', seen: 'all wet before gel', given: [0.85, 0.7, 0.7, 0.2, 0.04, 0.9, 0.93, 0.85] },
      { id: 'no', label: 'No', seen: 'not all wet at gel', given: [0.15, 0.3, 0.3, 0.8, 0.96, 0.1, 0.07, 0.15] },
    ],
  },
  {
    id: 'pot', group: 'pot', ask: 'Did the hose draw air from the pot?',
    answers: [
      { id: 'no', label: 'No', seen: 'the pot never ran dry', given: [0.96, 0.96, 0.96, 0.1, 0.96, 0.95, 0.96, 0.96] },
      { id: 'yes', label: 'Yes', seen: 'the pot ran dry', given: [0.04, 0.04, 0.04, 0.9, 0.04, 0.05, 0.04, 0.04] },
    ],
  },
  {
    id: 'hardness', group: 'cure', ask: 'Is it hard all over?',
    answers: [
      { id: 'hard', label: 'Hard', seen: 'hard all over', given: [0.95, 0.95, 0.95, 0.93, 0.92, 0.95, 0.95, 0.1] },
      { id: 'soft', label: 'Soft or sticky in places', seen: 'soft or sticky in places', given: [0.05, 0.05, 0.05, 0.07, 0.08, 0.05, 0.05, 0.9] },
    ],
  },
  {
    id: 'ratio', group: 'cure', ask: 'What does the log say of the ratio that was weighed?',
    answers: [
      { id: 'right', label: 'As wanted', seen: 'weighed in the right ratio', given: [0.97, 0.97, 0.97, 0.97, 0.96, 0.97, 0.97, 0.2] },
      { id: 'off', label: 'Outside its window', seen: 'weighed in a ratio outside its window', given: [0.03, 0.03, 0.03, 0.03, 0.04, 0.03, 0.03, 0.8] },
    ],
  },
  {
    id: 'corner', group: 'corner', ask: 'What do the inside corners look like?',
    answers: [
      { id: 'sound', label: 'Sound', seen: 'corners sound', given: [0.88, 0.85, 0.88, 0.88, 0.88, 0.15, 0.92, 0.9] },
      { id: 'hollow', label: 'Hollow behind the fabric', seen: 'hollow behind the fabric in a corner', given: [0.06, 0.05, 0.06, 0.06, 0.06, 0.45, 0.05, 0.05] },
      { id: 'rich', label: 'Rich in resin', seen: 'a corner rich in resin', given: [0.06, 0.1, 0.06, 0.06, 0.06, 0.4, 0.03, 0.05] },
    ],
  },
  {
    id: 'pressed', group: 'mass', ask: 'Was it fully pulled, warm, and meshed or bled all over until gel?',
    answers: [
      { id: 'yes', label: 'Yes, at once', seen: 'fully pulled, warm and bled all over', given: [0.3, 0.3, 0.3, 0.3, 0.3, 0.3, 0.85, 0.3] },
      { id: 'no', label: 'No', seen: 'not pulled, warmed and bled all at once', given: [0.7, 0.7, 0.7, 0.7, 0.7, 0.7, 0.15, 0.7] },
    ],
  },
];
