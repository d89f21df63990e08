import type { JobLayer } from '@wick/contract/job/stack';
import { roomAt } from '@wick/core/layouts/frame';
import type { LaidJob } from '../job/laid.ts';
import { materialOf } from '../job/material-of.ts';
import { checkLayout, type RuleBreak } from '../layout/checks.ts';
import { updateLine } from '../layout/edits.ts';
import { partShapeOf } from '../layout/fit.ts';
import { middleOfLine, ofKind } from '../layout/lines.ts';
import { hasFront } from '../processes/processes.ts';
import { addLayer, newLayer, putInOrder, updateLayer, withCovers } from './edits.ts';
import { isCutFrom, layerWord } from './kinds.ts';
import { isWetted, layersOf, shareCovered, tapeBand } from './lies.ts';
import { outOfOrder } from './order.ts';
import { materialRules } from './material-checks.ts';
import type { Rule, StackBreak, StackContext } from './rule.ts';
import { portsOf } from './regions.ts';
import { fitting, ventsAcross } from './mends.ts';
import { FILM_LAP, OFF_TAPE, PATCH, STRIP } from './usual.ts';

/** m. Common practice, no source. */
const MOST_FILM_LAP = 0.02;
/** How far inside the part a hose may come through over a vent. */
const PORT_INSIDE = 0.01;
/** Share of a line that has to lie on something. */
const MOST_OF_IT = 0.95;

const isBagged = ({ process }: LaidJob) => process !== 'closedMould';

/** Common practice, no source. Checked by checks.test.ts. */
export const stackRules = {
  wrongOrder: (job) => {
    const found = outOfOrder(job.layers, job.process);
    return [
      found !== null && {
        itemId: found.layer.id,
        message: `The ${layerWord(found.layer.kind)} lies over the ${layerWord(found.under.kind)}; it belongs under it.`,
        fix: { label: 'Put the layers in order', apply: putInOrder },
      },
    ];
  },

  lacksLayer: (job, { materials }) =>
    (isBagged(job) && job.layers.length > 0 ? neededIn(job) : [])
      .filter(([kinds]) => layersOf(job, ...kinds).length === 0)
      .map(([[kind], why]) => {
        const material = materials.find((own) => isCutFrom(kind, own)) ?? null;
        return {
          itemId: null,
          message: `There is no ${layerWord(kind)}: ${why}.`,
          fix: {
            label: `Lay ${material?.name ?? `a ${layerWord(kind)}`}`,
            apply: addLayer(newLayer(kind, material?.id ?? null), material),
          },
        };
      }),

  ventShutOff: (job) =>
    layersOf(job, 'releaseFilm').flatMap((layer) =>
      ofKind(job, 'vent').map(
        (vent) =>
          shareCovered(job, layer, vent.points) > 0.5 && {
            itemId: layer.id,
            at: middleOfLine(vent.points),
            message: `Release film lies under ${vent.name}: no air comes through it, and the stack is not connected to the vent.`,
            fix: {
              label: 'Lay it under the feeds only',
              apply: withCovers(layer.id, () => ({ kind: 'lines', of: 'feed', width: STRIP })),
            },
          },
      ),
    ),

  lineOnFace: (job) =>
    hasFront(job) && isBagged(job) && job.layers.length > 0
      ? job.lines
          .filter(({ kind, stockId }) => kind !== 'race' && materialOf(job, stockId, 'line')?.form !== 'loop')
          .map((line) => {
            const at = job.layers.findIndex(({ kind }) => kind === 'lines');
            const under = job.layers
              .slice(0, at < 0 ? job.layers.length : at)
              .filter(({ kind, side }) => side === 'bag' && kind !== 'flashTape');
            const isCovered = under.some((layer) => shareCovered(job, layer, line.points) > MOST_OF_IT);
            const peel = layersOf(job, 'peelPly').find(({ covers }) => covers.kind === 'part');
            return (
              !isCovered && {
                itemId: line.id,
                at: middleOfLine(line.points),
                message: `Nothing lies between ${line.name} and the face: the line prints, and is cured in.`,
                fix: peel
                  ? { label: 'Run the peel ply out under it', apply: ventsAcross(peel, line, tapeBand(job)) }
                  : {
                      label: 'Lay a strip of peel ply under it',
                      apply: addLayer({
                        ...newLayer('peelPly'),
                        covers: { kind: 'lines', of: 'both', width: STRIP },
                      }),
                    },
              }
            );
          })
      : [],

  filmLapped: (job, { show }) =>
    layersOf(job, 'perforatedFilm').map(
      (layer) =>
        layer.lap > MOST_FILM_LAP && {
          itemId: layer.id,
          message: `The perforated film laps by ${show(layer.lap, 'length')}: two films let nothing through there, and a stripe stays rich.`,
          fix: {
            label: `Lap it by ${show(FILM_LAP, 'length')}`,
            apply: updateLayer(layer.id, { lap: FILM_LAP }),
          },
        },
    ),

  acrossTape: (job, { show }) => {
    const tape = tapeBand(job);
    return layersOf(job, 'peelPly', 'perforatedFilm', 'flowMesh', 'bleeder', 'breather').map((layer) => {
      const { covers } = layer;
      const end = covers.kind === 'part' ? Math.max(covers.edge, covers.feed ?? covers.edge) : -Infinity;
      const most = tape ? tape.from - OFF_TAPE : Infinity;
      return (
        end > (tape?.from ?? Infinity) && {
          itemId: layer.id,
          message: `The ${layerWord(layer.kind)} runs ${show(end, 'length')} past the edge and so across the tape at ${show(tape!.from, 'length')}: the bag leaks along every thread.`,
          fix: {
            label: `End it ${show(OFF_TAPE, 'length')} short of the tape`,
            apply: withCovers(layer.id, (own) =>
              own.kind === 'part'
                ? {
                    ...own,
                    edge: Math.min(own.edge, most),
                    feed: own.feed === null ? null : Math.min(own.feed, most),
                  }
                : own,
            ),
          },
        }
      );
    });
  },

  portOnPart: (job, { show }) => {
    const part = partShapeOf(job);
    return ofKind(job, 'vent').map((vent) => {
      const { points } = vent;
      const [port] = portsOf({ lines: [vent] });
      const ends = [0, 1].map((inlet) => ({
        inlet,
        room: roomAt(part, points[inlet * (points.length - 1)]!),
      }));
      const [best] = ends.sort((a, b) => a.room - b.room);
      return (
        points.length > 1 &&
        roomAt(part, port!) > PORT_INSIDE &&
        best!.room <= PORT_INSIDE && {
          itemId: vent.id,
          at: port!,
          message: `The hose of ${vent.name} comes through the bag over the part, ${show(roomAt(part, port!), 'length')} inside its edge, and prints there.`,
          fix: {
            label: 'Take it off at the end by the edge',
            apply: updateLine(vent.id, { inlet: best!.inlet }),
          },
        }
      );
    });
  },

  portWithoutBreather: (job, { materials }) =>
    isWetted(job) && job.layers.length > 0
      ? ofKind(job, 'vent').map((vent) => {
          const [port] = portsOf({ lines: [vent] });
          const isFelt = layersOf(job, 'breather', 'bleeder').some(
            (layer) => shareCovered(job, layer, [port!]) > MOST_OF_IT,
          );
          const felt = materials.find((own) => isCutFrom('breather', own)) ?? null;
          return (
            !isFelt && {
              itemId: vent.id,
              at: port!,
              message: `No breather lies under the hose of ${vent.name}: the bag is sucked shut over it.`,
              fix: {
                label: 'Lay a patch of breather under each',
                apply: addLayer(
                  { ...newLayer('breather', felt?.id ?? null), covers: { kind: 'ports', width: PATCH } },
                  felt,
                ),
              },
            }
          );
        })
      : [],

  flangeTooNarrow: (job, { show }) => {
    const { flange } = job.part;
    const tape = tapeBand(job);
    return [
      flange !== null &&
        tape !== null &&
        tape.to > flange && {
          itemId: layersOf(job, 'sealantTape')[0]!.id,
          message: `The mould has ${show(flange, 'length')} beyond the edge; the tape lies to ${show(tape.to, 'length')}. Usual is 50 mm and more.`,
          fix: fitting(tape, flange)
            ? { label: 'Lay tape and bag as far in as they go', apply: fitting(tape, flange)! }
            : null,
        },
    ];
  },

  ...materialRules,
} satisfies Record<string, Rule>;

type Needs = [kinds: [JobLayer['kind'], ...JobLayer['kind'][]], why: string][];

/** What a bag needs, one of each, by process. */
function neededIn(job: LaidJob): Needs {
  const always: Needs = [
    [['sealantTape'], 'the bag has nothing to seal on'],
    [['bag'], 'nothing shuts the stack in'],
  ];
  const off: Needs[number] = [
    ['peelPly', 'perforatedFilm', 'releaseFilm'],
    'what lies on the part is cured to it',
  ];
  if (!isWetted(job))
    return job.lines.length > 0
      ? [off, [['lines'], 'feeds and vents have no place'], ...always]
      : [off, ...always];
  return [
    off,
    [['breather', 'bleeder'], 'the bag shuts on the plies, and no air finds its way out'],
    ...always,
  ];
}

/** Rules for lines that belong to the stack as well. */
const LINE_RULES: readonly string[] = ['meshReachesVent', 'ventHasNoPath', 'longerThanStock'];

/** Every rule that a stack breaks. */
export function checkStack(job: LaidJob, context: StackContext): StackBreak[] {
  const own = (Object.entries(stackRules) as [string, Rule][]).flatMap(([rule, check]) =>
    check(job, context)
      .filter((found) => found !== false)
      .map((found) => ({ rule, at: null, ...found })),
  );
  const ofLines: RuleBreak[] = checkLayout(job, context).filter(({ rule }) => LINE_RULES.includes(rule));
  return [...own, ...ofLines];
}
