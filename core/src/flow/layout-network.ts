import type { Mesh } from '../geometry/mesh.ts';
import { allNodes, nearestNode, nodesWithin, placeOf } from '../geometry/mesh-places.ts';
import { pointAlong } from '../geometry/along.ts';
import { distance, type Point } from '../geometry/polygon.ts';
import { ModelError } from '../model-error.ts';
import { addChannel, hoseConductance, roundBore } from './channels.ts';
import type { Gate } from './gates.ts';
import { STANDARD_GRAVITY } from './gravity.ts';
import { addLayers } from './layered-network.ts';
import type { ForecastRequest, LayoutLine, LayoutTrigger } from './layout.ts';
import { createNetworkBuilder, type FlowNetwork } from './network.ts';
import type { Action, Trigger } from './sequence.ts';
import { betterOn } from './patchwork.ts';
import { createRaces } from './races.ts';
import { addWell } from './wells.ts';

/** Fill fraction that counts as full for a whole part or zone. */
const FULL = 0.995;

/** The layout as the solver sees it. */
export interface Plan {
  readonly network: FlowNetwork;
  readonly gates: readonly Gate[];
  /** Gate of each line; -1 for a race. */
  readonly gateOf: readonly number[];
  /** Mesh node that each network node stands at; pots and tees stand where their hose joins the part. */
  readonly standsAt: Int32Array;
  /** Nodes of races, and the mesh node beside each. */
  readonly raceNodes: readonly { readonly node: number; readonly at: number }[];
  /** Pores of all layers, m3. */
  readonly pores: number;
}

/** Layers, channels, hoses, tees and wells of a layout as one network. */
export function buildNetwork(request: ForecastRequest, mesh: Mesh, zoneOf: ArrayLike<number>): Plan {
  const { lines, zones, tees = [], density, feedPressure } = request;
  const builder = createNetworkBuilder();
  const stacks = zones.map((zone) => zone.layers);
  const { patchwork } = request;
  const better = patchwork ? betterOn(mesh, patchwork) : null;
  const { plain, sheet } = addLayers(builder, mesh, { zoneOf, stacks, better });
  const pores = builder.volume();
  const opensInto = new Set(
    lines.flatMap(({ kind }, n) => (kind === 'race' ? [] : Array.from(mesh.lineNodes[n]))),
  );
  const races = createRaces(builder, { mesh, zoneOf, zones, opensInto });
  const teeNodes = new Map<string, { pot: number; tee: number }>();
  for (const { id, hose } of tees) {
    const [pot, tee] = [builder.addNodes([speck(plain)]), builder.addNodes([speck(plain)])];
    builder.join(pot, tee, hoseConductance(hose));
    teeNodes.set(id, { pot, tee });
  }
  const gates: Gate[] = [];
  const added: { node: number; at: number }[] = [];
  const gateOf = lines.map((line, index) => {
    const nodes = mesh.lineNodes[index];
    const edges = mesh.lineEdges[index];
    if (line.kind === 'race') {
      races.add(edges, line.bore);
      return -1;
    }
    const isPoint = nodes.length === 1;
    const well = { node: nodes[0], radius: line.bore / 2 };
    const own = isPoint ? Int32Array.of(addWell(builder, { plain, mesh, sheet, offset: 0 }, well)) : nodes;
    const pressure =
      line.kind === 'feed' ? feedPressure + density * STANDARD_GRAVITY * (line.potLevel ?? 0) : undefined;
    if (isPoint) added.push({ node: own[0], at: nodes[0] });
    const { name, kind, startsOpen, pot } = line;
    const gate = { name, kind, nodes: own, startsOpen, pressure, pot };
    if (line.kind === 'vent' || !line.hose) return gates.push(gate) - 1;
    if (!isPoint) addChannel(builder, mesh, { edges, ...roundBore(line.bore) });
    const junction = isPoint ? own[0] : inletNode(mesh, line, nodes);
    const through = line.hose.tee ? teeNodes.get(line.hose.tee) : undefined;
    const from = through?.tee ?? builder.addNodes([speck(plain)]);
    builder.join(from, junction, hoseConductance(line.hose));
    const at = isPoint ? nodes[0] : junction;
    added.push({ node: from, at }, { node: through?.pot ?? from, at });
    return gates.push({ ...gate, supply: { pot: through?.pot ?? from, from, junction } }) - 1;
  });
  const network = builder.build();
  const standsAt = Int32Array.from({ length: network.nodeCount }, (_, i) => i % mesh.nodeCount);
  for (const { node, at } of [...added, ...races.added]) standsAt[node] = at;
  return { network, gates, gateOf, standsAt, raceNodes: races.added, pores };
}

/** Pore volume of a pot or tee: next to nothing, for it is full from the start. */
const speck = ({ storage }: FlowNetwork) => 1e-3 * storage[0];

const inletNode = (mesh: Mesh, line: LayoutLine, nodes: Int32Array): number =>
  nodeAt(mesh, nodes, pointAlong(line.points, line.inlet ?? 0.5));

/** The one of some nodes that is nearest to a place. */
const nodeAt = (mesh: Mesh, nodes: Int32Array, target: Point): number =>
  nodes.reduce((best, node) =>
    distance(placeOf(mesh, node), target) < distance(placeOf(mesh, best), target) ? node : best,
  );

/** The layout's actions on its gates. @throws ModelError NO_SUCH_LINE */
export function actionsOf(
  { lines, marks = [], zones, done = [] }: ForecastRequest,
  mesh: Mesh,
  zoneOfNode: Int32Array,
  { gates, gateOf }: Plan,
  inPart: Uint8Array,
): Action[] {
  const lineIndex = (id: string) => {
    const index = lines.findIndex((line) => line.id === id);
    if (index >= 0 && gateOf[index] >= 0) return index;
    throw noSuchLine(id);
  };
  const counted = allNodes(mesh).filter((i) => inPart[i]);
  /** The same places in every layer. */
  const throughLayers = (nodes: Int32Array) =>
    Int32Array.from(zones[0].layers.flatMap((_, l) => Array.from(nodes, (i) => l * mesh.nodeCount + i)));
  const trigger = (when: LayoutTrigger): Trigger => {
    switch (when.kind) {
      case 'time':
      case 'drawn':
        return when;
      case 'opened':
        return { kind: 'opened', gate: gateOf[lineIndex(when.what)], delay: when.delay };
      case 'full':
        return { kind: 'wet', nodes: throughLayers(counted), level: FULL, delay: when.delay };
      case 'zoneFull': {
        const within = (nodes: Int32Array) => nodes.filter((i) => zoneOfNode[i] === when.zone);
        // Of a brake no node is counted in the part: then the zone itself has to be full.
        const own = within(counted).length > 0 ? within(counted) : within(allNodes(mesh));
        return { kind: 'wet', nodes: throughLayers(own), level: FULL, delay: when.delay };
      }
      case 'passed': {
        const mark = marks.find(({ id }) => id === when.what);
        const index = mark ? -1 : lineIndex(when.what);
        const path = mark ? [mark] : lines[index].points;
        const own = mark ? Int32Array.of(nearestNode(mesh, mark)) : gates[gateOf[index]].nodes;
        const level = mark || lines[index].kind === 'feed' ? 0.5 : 1;
        const beyond = (nodes: Int32Array, from: readonly Point[]) => {
          const near = when.distance > 0 ? nodesWithin(mesh, from, when.distance) : nodes;
          return near.length > 0 ? near : nodes;
        };
        const beyondOne = (node: number) => beyond(Int32Array.of(node), [placeOf(mesh, node)]);
        // A point, behind its well, has one node only.
        const at = mark || own.length === 1 ? 'last' : (when.at ?? 'last');
        const [nodes, ...orElse] =
          at === 'last'
            ? [beyond(own, path)]
            : at === 'middle'
              ? [beyondOne(nodeAt(mesh, own, pointAlong(path, 0.5)))]
              : Array.from(own, beyondOne);
        return { kind: 'wet', nodes, orElse, level, delay: when.delay };
      }
    }
  };
  return lines.flatMap(({ actions }, index) =>
    gateOf[index] < 0
      ? []
      : actions
          .filter(({ id }) => id === undefined || !done.includes(id))
          .map(({ id, opening, when }) => ({ id, gate: gateOf[index], opening, when: trigger(when) })),
  );
}

const noSuchLine = (id: string) =>
  new ModelError(
    'NO_SUCH_LINE',
    `An opening waits for "${id}", which is neither a line nor a mark here. Choose another trigger for it.`,
    { id },
  );
