// AssemblyScript, compiled by `npm run kernel` into src/flow/kernel-binary.ts. The same algorithm as src/flow/obstacle.ts and
// src/flow/aggregation-multigrid.ts, which say what each step is for and are its oracle. The host lays out the memory.

const OVERCORRECTION: f64 = 1.6;
const COARSEST_SWEEPS: i32 = 4;
const MAX_SETS: i32 = 400;
const MAX_ITERATIONS: i32 = 400;
const LOOSE: f64 = 0.03;

/** One level of the hierarchy, as the host writes it: 2 counts and 14 addresses of 4 bytes each. */
@unmanaged
class Level {
  count: i32;
  activeCount: i32;
  rowStart: usize;
  columns: usize;
  upperStart: usize;
  values: usize;
  diagonal: usize;
  inverse: usize;
  active: usize;
  list: usize;
  x: usize;
  b: usize;
  r: usize;
  coarse: usize;
  coarseEntry: usize;
  /** 0 on the coarsest level. */
  next: usize;
}

/** The problem of one step on the finest level. */
@unmanaged
class Problem {
  fine: usize;
  fullDiagonal: usize;
  capacity: usize;
  isGiven: usize;
  floor: usize;
  compliance: usize;
  impulse: usize;
  inflow: usize;
  r: usize;
  z: usize;
  p: usize;
  q: usize;
  /** Written by solve. */
  solves: i32;
  iterations: i32;
}

// prettier-ignore
// @ts-ignore: decorator
@inline function i32At(base: usize, i: i32): i32 { return load<i32>(base + ((<usize>i) << 2)); }
// prettier-ignore
// @ts-ignore: decorator
@inline function at(base: usize, i: i32): f64 { return load<f64>(base + ((<usize>i) << 3)); }
// prettier-ignore
// @ts-ignore: decorator
@inline function put(base: usize, i: i32, value: f64): void { store<f64>(base + ((<usize>i) << 3), value); }
// prettier-ignore
// @ts-ignore: decorator
@inline function flag(base: usize, i: i32): bool { return load<u8>(base + <usize>i) != 0; }

/** Sum of value times x over the branches from .. to. */
// @ts-ignore: decorator
@inline
function gather(columns: usize, values: usize, x: usize, from: i32, to: i32): f64 {
  let sum: f64 = 0;
  for (let e = from; e < to; e++) sum += at(values, e) * at(x, i32At(columns, e));
  return sum;
}

function listActive(level: Level): void {
  let n = 0;
  for (let i = 0; i < level.count; i++)
    if (flag(level.active, i)) {
      store<i32>(level.list + ((<usize>n) << 2), i);
      n += 1;
      put(level.inverse, i, 1.0 / at(level.diagonal, i));
    }
  level.activeCount = n;
}

function entries(level: Level): i32 {
  return i32At(level.rowStart, level.count);
}

function restrictMatrix(fine: Level, next: Level): void {
  memory.fill(next.values, 0, (<usize>entries(next)) << 3);
  memory.fill(next.diagonal, 0, (<usize>next.count) << 3);
  memory.fill(next.active, 0, <usize>next.count);
  for (let n = 0; n < fine.activeCount; n++) {
    const i = i32At(fine.list, n);
    const c = i32At(fine.coarse, i);
    store<u8>(next.active + <usize>c, 1);
    let sum = at(fine.diagonal, i);
    const end = i32At(fine.rowStart, i + 1);
    for (let e = i32At(fine.rowStart, i); e < end; e++) {
      if (!flag(fine.active, i32At(fine.columns, e))) continue;
      const entry = i32At(fine.coarseEntry, e);
      if (entry >= 0) put(next.values, entry, at(next.values, entry) + at(fine.values, e));
      else sum -= at(fine.values, e);
    }
    put(next.diagonal, c, at(next.diagonal, c) + sum);
  }
  listActive(next);
}

function update(problem: Problem): void {
  const fine = changetype<Level>(problem.fine);
  memory.copy(fine.diagonal, problem.fullDiagonal, (<usize>fine.count) << 3);
  let level = fine;
  while (true) {
    memory.fill(level.x, 0, (<usize>level.count) << 3);
    if (level.next == 0) break;
    level = changetype<Level>(level.next);
  }
  listActive(fine);
  level = fine;
  while (level.next != 0) {
    const next = changetype<Level>(level.next);
    restrictMatrix(level, next);
    level = next;
  }
}

function sweepForward(level: Level): void {
  const list = level.list;
  const rowStart = level.rowStart;
  const upperStart = level.upperStart;
  const columns = level.columns;
  const values = level.values;
  const inverse = level.inverse;
  const x = level.x;
  const b = level.b;
  for (let n = 0, count = level.activeCount; n < count; n++) {
    const i = i32At(list, n);
    const sum = at(b, i) + gather(columns, values, x, i32At(rowStart, i), i32At(upperStart, i));
    put(x, i, sum * at(inverse, i));
  }
}

function sweepOnward(level: Level): void {
  const list = level.list;
  const rowStart = level.rowStart;
  const columns = level.columns;
  const values = level.values;
  const inverse = level.inverse;
  const x = level.x;
  const b = level.b;
  for (let n = 0, count = level.activeCount; n < count; n++) {
    const i = i32At(list, n);
    const sum = at(b, i) + gather(columns, values, x, i32At(rowStart, i), i32At(rowStart, i + 1));
    put(x, i, sum * at(inverse, i));
  }
}

function sweepBackward(level: Level): void {
  const list = level.list;
  const rowStart = level.rowStart;
  const columns = level.columns;
  const values = level.values;
  const inverse = level.inverse;
  const x = level.x;
  const b = level.b;
  for (let n = level.activeCount - 1; n >= 0; n--) {
    const i = i32At(list, n);
    const sum = at(b, i) + gather(columns, values, x, i32At(rowStart, i), i32At(rowStart, i + 1));
    put(x, i, sum * at(inverse, i));
  }
}

function residualAfterForward(level: Level): void {
  const list = level.list;
  const rowStart = level.rowStart;
  const upperStart = level.upperStart;
  const columns = level.columns;
  const values = level.values;
  const x = level.x;
  const r = level.r;
  for (let n = 0, count = level.activeCount; n < count; n++) {
    const i = i32At(list, n);
    put(r, i, gather(columns, values, x, i32At(upperStart, i), i32At(rowStart, i + 1)));
  }
}

function residual(level: Level): void {
  const list = level.list;
  const rowStart = level.rowStart;
  const columns = level.columns;
  const values = level.values;
  const diagonal = level.diagonal;
  const x = level.x;
  const b = level.b;
  const r = level.r;
  for (let n = 0, count = level.activeCount; n < count; n++) {
    const i = i32At(list, n);
    const sum = gather(columns, values, x, i32At(rowStart, i), i32At(rowStart, i + 1));
    put(r, i, at(b, i) - at(diagonal, i) * at(x, i) + sum);
  }
}

function correct(level: Level, next: Level): void {
  for (let n = 0; n < next.activeCount; n++) put(next.b, i32At(next.list, n), 0);
  const list = level.list;
  const coarse = level.coarse;
  const r = level.r;
  const x = level.x;
  for (let n = 0, count = level.activeCount; n < count; n++) {
    const i = i32At(list, n);
    const c = i32At(coarse, i);
    put(next.b, c, at(next.b, c) + at(r, i));
  }
  cycle(next, false);
  for (let n = 0, count = level.activeCount; n < count; n++) {
    const i = i32At(list, n);
    put(x, i, at(x, i) + OVERCORRECTION * at(next.x, i32At(coarse, i)));
  }
}

function cycle(level: Level, isFinest: bool): void {
  for (let n = 0; n < level.activeCount; n++) put(level.x, i32At(level.list, n), 0);
  sweepForward(level);
  if (level.next == 0) {
    sweepBackward(level);
    for (let s = 1; s < COARSEST_SWEEPS; s++) {
      sweepOnward(level);
      sweepBackward(level);
    }
    return;
  }
  const next = changetype<Level>(level.next);
  residualAfterForward(level);
  correct(level, next);
  if (!isFinest) {
    residual(level);
    correct(level, next);
  }
  sweepBackward(level);
}

function precondition(fine: Level, r: usize, z: usize): void {
  for (let n = 0; n < fine.activeCount; n++) {
    const i = i32At(fine.list, n);
    put(fine.b, i, at(r, i));
  }
  cycle(fine, true);
  for (let n = 0; n < fine.activeCount; n++) {
    const i = i32At(fine.list, n);
    put(z, i, at(fine.x, i));
  }
}

function flowInto(fine: Level, i: i32, u: usize): f64 {
  const own = at(u, i);
  let sum: f64 = 0;
  const end = i32At(fine.rowStart, i + 1);
  for (let e = i32At(fine.rowStart, i); e < end; e++)
    sum += at(fine.values, e) * (at(u, i32At(fine.columns, e)) - own);
  return sum;
}

/** @returns iterations, or -1 when it did not settle. */
function solveActive(problem: Problem, tolerance: f64, reduction: f64): i32 {
  const fine = changetype<Level>(problem.fine);
  const fullDiagonal = problem.fullDiagonal;
  const capacity = problem.capacity;
  const compliance = problem.compliance;
  const impulse = problem.impulse;
  const r = problem.r;
  const z = problem.z;
  const p = problem.p;
  const q = problem.q;
  const list = fine.list;
  const rowStart = fine.rowStart;
  const columns = fine.columns;
  const values = fine.values;
  const count = fine.activeCount;
  let error: f64 = 0;
  for (let n = 0; n < count; n++) {
    const i = i32At(list, n);
    const rest = flowInto(fine, i, impulse) - at(compliance, i) * at(impulse, i) - at(capacity, i);
    put(r, i, rest);
    put(p, i, 0);
    error += Math.abs(rest);
  }
  const goal = Math.max(tolerance, reduction * error);
  let rzOld: f64 = 0;
  let iterations = 0;
  while (!(error <= goal)) {
    iterations += 1;
    if (iterations > MAX_ITERATIONS || isNaN(error)) return -1;
    precondition(fine, r, z);
    let rz: f64 = 0;
    for (let n = 0; n < count; n++) {
      const i = i32At(list, n);
      rz += at(r, i) * at(z, i);
    }
    const beta = iterations > 1 ? rz / rzOld : 0;
    for (let n = 0; n < count; n++) {
      const i = i32At(list, n);
      put(p, i, at(z, i) + beta * at(p, i));
    }
    let pq: f64 = 0;
    for (let n = 0; n < count; n++) {
      const i = i32At(list, n);
      const own = at(p, i);
      const sum =
        at(fullDiagonal, i) * own - gather(columns, values, p, i32At(rowStart, i), i32At(rowStart, i + 1));
      put(q, i, sum);
      pq += own * sum;
    }
    const alpha = rz / pq;
    error = 0;
    for (let n = 0; n < count; n++) {
      const i = i32At(list, n);
      put(impulse, i, at(impulse, i) + alpha * at(p, i));
      const rest = at(r, i) - alpha * at(q, i);
      put(r, i, rest);
      error += Math.abs(rest);
    }
    rzOld = rz;
  }
  return iterations;
}

function startSet(problem: Problem): void {
  const fine = changetype<Level>(problem.fine);
  memory.fill(problem.p, 0, (<usize>fine.count) << 3);
  update(problem);
}

function isSettled(problem: Problem, slack: f64): bool {
  const fine = changetype<Level>(problem.fine);
  const capacity = problem.capacity;
  const isGiven = problem.isGiven;
  const floor = problem.floor;
  const compliance = problem.compliance;
  const impulse = problem.impulse;
  const q = problem.q;
  const active = fine.active;
  let changed = 0;
  // The flags of this pass are kept in q until all nodes have been judged on the same impulses.
  for (let i = 0; i < fine.count; i++) {
    put(q, i, 0);
    if (flag(isGiven, i)) continue;
    if (flag(active, i)) {
      if (at(impulse, i) < at(floor, i)) {
        put(q, i, -1);
        changed += 1;
      }
    } else if (flowInto(fine, i, impulse) - at(compliance, i) * at(impulse, i) > at(capacity, i) + slack) {
      put(q, i, 1);
      changed += 1;
    }
  }
  if (changed == 0) return true;
  for (let i = 0; i < fine.count; i++) {
    const change = at(q, i);
    if (change > 0) store<u8>(active + <usize>i, 1);
    else if (change < 0) {
      store<u8>(active + <usize>i, 0);
      put(impulse, i, at(floor, i));
    }
  }
  startSet(problem);
  return false;
}

/** @returns 0, or 1 when the active set and 2 when the linear solve did not settle. */
export function solve(address: usize, tolerance: f64): i32 {
  const problem = changetype<Problem>(address);
  const fine = changetype<Level>(problem.fine);
  const capacity = problem.capacity;
  const isGiven = problem.isGiven;
  const floor = problem.floor;
  const compliance = problem.compliance;
  const impulse = problem.impulse;
  const inflow = problem.inflow;
  for (let i = 0; i < fine.count; i++) {
    const given = flag(isGiven, i);
    const isActive = !given && at(impulse, i) > at(floor, i);
    store<u8>(fine.active + <usize>i, isActive ? 1 : 0);
    if (!given && !isActive) put(impulse, i, at(floor, i));
  }
  startSet(problem);
  problem.solves = 0;
  problem.iterations = 0;
  let exact = false;
  while (true) {
    problem.solves += 1;
    if (problem.solves > MAX_SETS) return 1;
    const iterations = solveActive(problem, tolerance, exact ? 0 : LOOSE);
    if (iterations < 0) return 2;
    problem.iterations += iterations;
    const settled = isSettled(problem, tolerance / <f64>fine.count);
    if (settled && exact) break;
    exact = settled;
  }
  for (let i = 0; i < fine.count; i++)
    put(
      inflow,
      i,
      flag(fine.active, i)
        ? at(capacity, i) + at(compliance, i) * at(impulse, i)
        : flowInto(fine, i, impulse),
    );
  return 0;
}
