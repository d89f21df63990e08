import { ModelError } from '../model-error.ts';
import { createHierarchy, type LevelGraph } from './hierarchy.ts';
import { kernelBinary } from './kernel-binary.ts';
import type { FlowNetwork } from './network.ts';
import { frontDidNotSettle, pressureDidNotSettle, type ObstacleSolver } from './obstacle.ts';

interface Kernel {
  solve(problem: number, tolerance: number): number;
}

const PAGE = 65_536;
let compiled: WebAssembly.Module | null | undefined;

/** False where the host refuses to compile, as a strict page policy may. */
export function canCompile(): boolean {
  if (compiled === undefined)
    try {
      compiled = new WebAssembly.Module(decode(kernelBinary));
    } catch {
      compiled = null;
    }
  return compiled !== null;
}

/**
 * The solver of obstacle.ts compiled to WebAssembly (core/kernel/obstacle.ts): the same algorithm and answers, several
 * times quicker. Each solver has a memory of its own, which goes with it.
 * @throws ModelError as the solver of obstacle.ts
 * Checked by obstacle-kernel.test.ts against it.
 */
export function createKernelSolver(network: FlowNetwork): ObstacleSolver {
  const module = canCompile() ? compiled! : new WebAssembly.Module(decode(kernelBinary));
  const { nodeCount, rowStart, conductance } = network;
  const levels = createHierarchy(network);
  const memory = new WebAssembly.Memory({ initial: Math.ceil(bytesFor(levels) / PAGE) + 2 });
  const { exports } = new WebAssembly.Instance(module, {
    env: { memory, abort: () => undefined },
  });
  const kernel = exports as unknown as Kernel;
  const room = layOut(memory.buffer);

  const fields = levels.map((graph) => room.level(graph));
  fields.forEach((level, l) => {
    const next = fields[l + 1];
    if (next) new Uint32Array(memory.buffer, level.address, 16)[15] = next.address;
  });
  const [fine] = fields;
  const [diagonal, capacity, floor, compliance, impulse, inflow] = Array.from({ length: 6 }, () =>
    room.floats(nodeCount),
  );
  const isGiven = room.bytes(nodeCount);
  const work = Array.from({ length: 4 }, () => room.floats(nodeCount).byteOffset);
  const problem = room.words([
    fine.address,
    ...[diagonal, capacity, isGiven, floor, compliance, impulse, inflow].map((array) => array.byteOffset),
    ...work,
    0,
    0,
  ]);

  return {
    solve(step, out) {
      fine.values.set(conductance);
      for (let i = 0; i < nodeCount; i++) {
        let sum = step.compliance[i];
        for (let e = rowStart[i]; e < rowStart[i + 1]; e++) sum += conductance[e];
        diagonal[i] = sum;
      }
      capacity.set(step.capacity);
      isGiven.set(step.isGiven);
      floor.set(step.floor);
      compliance.set(step.compliance);
      impulse.set(step.impulse);
      const status = kernel.solve(problem.byteOffset, step.tolerance);
      if (status === 1) throw frontDidNotSettle();
      if (status === 2) throw pressureDidNotSettle();
      step.impulse.set(impulse);
      out.set(inflow);
      return { solves: problem[12], iterations: problem[13] };
    },
  };
}

/** Hands out addresses one after another; 8-byte aligned, from 1 KiB on (the compiler keeps the first bytes). */
function layOut(buffer: ArrayBuffer) {
  let top = 1024;
  const take = (bytes: number) => {
    const address = top;
    top += Math.ceil(bytes / 8) * 8;
    if (top > buffer.byteLength)
      throw new ModelError('OUT_OF_MEMORY', 'The mesh is too fine for the memory. Ask for fewer nodes.');
    return address;
  };
  const floats = (count: number) => new Float64Array(buffer, take(8 * count), count);
  const bytes = (count: number) => new Uint8Array(buffer, take(count), count);
  const words = (values: ArrayLike<number>) => {
    const array = new Int32Array(buffer, take(4 * values.length), values.length);
    array.set(values);
    return array;
  };
  return {
    floats,
    bytes,
    words,
    level({ count, rowStart, columns, upperStart, coarse, coarseEntry }: LevelGraph) {
      const values = floats(columns.length);
      const addresses = [
        words(rowStart),
        words(columns),
        words(upperStart),
        values,
        floats(count),
        floats(count),
        bytes(count),
        words(new Int32Array(count)),
        floats(count),
        floats(count),
        floats(count),
        words(coarse),
        words(coarseEntry),
      ].map((array) => array.byteOffset);
      return { values, address: words([count, 0, ...addresses, 0]).byteOffset };
    },
  };
}

function bytesFor(levels: readonly LevelGraph[]): number {
  const perLevel = levels.map(({ count, columns }) => 70 * count + 16 * columns.length + 512);
  return 2048 + 90 * levels[0].count + perLevel.reduce((a, b) => a + b, 0);
}

function decode(base64: string): Uint8Array<ArrayBuffer> {
  const text = atob(base64);
  return Uint8Array.from({ length: text.length }, (_, i) => text.charCodeAt(i));
}
