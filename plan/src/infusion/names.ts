import type { DayFault, StopSchool, WarmingKind } from '@wick/contract/run/infusion-bodies';

export const faultNames: Readonly<Record<DayFault, string>> = {
  pumpStopped: 'The pump has stopped',
  leakInFill: 'A leak in the fill',
  bucketLow: 'The pot is nearly dry',
  frontStalls: 'The front stands still',
  race: 'The front races along an edge',
  bagFloats: 'The bag floats',
  potWarm: 'The pot gets warm',
  gelsEarly: 'It gels before it is full',
  powerOut: 'The power is out',
};

export const bubbleWords = { inlet: 'at the inlet', outlet: 'in the outlet', bag: 'in the bag' } as const;

export const schoolWords: Readonly<Record<StopSchool, string>> = {
  keepVacuum: 'Feed shut, vacuum kept until gel',
  shutBoth: 'Feed and vent shut once all is wet',
};

export const warmingWords: Readonly<Record<WarmingKind, string>> = {
  none: 'Nothing',
  blanket: 'Blanket on',
  lamps: 'Lamps on',
  tent: 'Tent over it',
};
