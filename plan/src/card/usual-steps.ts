import type { ReleaseRecipe, Step, StepLibrary } from '@wick/contract/steps';

/** Of windows whose resin nobody has measured, J/mol: common practice, no source. */
const USUAL_ENERGY = 60_000;
const MINUTE = 60;
const HOUR = 3600;
/** At which shops state their times. */
const STATED_AT = 293.15;

type Named = Pick<Step, 'id' | 'phase' | 'title'>;
const step = (named: Named, changes: Partial<Omit<Step, keyof Named>> = {}): Step => ({
  ...{ why: '', caution: '', takes: [], who: '', lasts: null, each: 'once' },
  ...{ processes: [], wait: null, photo: false, isUsed: true },
  ...named,
  ...changes,
});

const SHEET = 'follow the safety data sheet and your site’s rules';
const UNDER_BAG: Step['processes'] = ['infusion', 'wetLayup', 'bonding'];

const mould: Step[] = [
  step(
    { id: 'inspect', phase: 'mould', title: 'Look the mould over' },
    {
      why: 'A crack, a soft spot or a leak on its record is found now, or in the part.',
      takes: ['Lamp', 'Mould record'],
      who: 'one',
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

const prep: Step[] = [
  step(
    { id: 'coat', phase: 'release', title: 'Lay on' },
    {
      why: 'Corners and edges first, and once more: there a part holds on.',
      caution: `Solvent vapour: air, gloves, no flame; ${SHEET}.`,
      takes: ['Release', 'Two cloths'],
      who: 'one',
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
      who: 'one',
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

const layUp: Step[] = [
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
      who: 'two',
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

const bag: Step[] = [
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
      who: 'two',
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
      who: 'one',
      lasts: 10 * MINUTE,
      processes: UNDER_BAG,
    },
  ),
];

const tight: Step[] = [
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
      who: 'one',
      lasts: 20 * MINUTE,
      processes: ['infusion', 'closedMould'],
    },
  ),
];

const wet: Step[] = [
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
      who: 'one, and nobody talks to them',
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
      who: 'two',
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

const after: Step[] = [
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
      who: 'two',
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

/** Release systems; times are common practice, no source. */
const recipes: ReleaseRecipe[] = [
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

/** What a workshop starts with, for it to change: common practice, no source. */
export const usualSteps: StepLibrary = {
  steps: [...mould, ...prep, ...layUp, ...bag, ...tight, ...wet, ...after],
  recipes,
  activationEnergy: USUAL_ENERGY,
};
