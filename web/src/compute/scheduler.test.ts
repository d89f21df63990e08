import { describe, expect, jest, test } from '@jest/globals';
import fc from 'fast-check';
import { Cancelled, createScheduler, type Lane } from './scheduler.ts';
import type { WorkerLike } from './slots.ts';
import type { Task } from './tasks.ts';
import type { Question, Reply } from './wire.ts';

/** A task that is told apart by its name. */
const task = (name: string) => ({ kind: 'sample', index: name }) as unknown as Task;
const nameOf = ({ task: asked }: Question) => (asked as unknown as { index: string }).index;

/** Workers that answer when they are told to. */
function fakeWorkers() {
  const made: FakeWorker[] = [];
  class FakeWorker implements WorkerLike {
    onmessage: WorkerLike['onmessage'] = null;
    onerror: WorkerLike['onerror'] = null;
    onmessageerror: WorkerLike['onmessageerror'] = null;
    question: Question | null = null;
    isAlive = true;
    constructor() {
      made.push(this);
    }
    postMessage(question: Question) {
      this.question = question;
    }
    terminate() {
      this.isAlive = false;
    }
    private reply(reply: Reply) {
      this.onmessage?.({ data: reply } as MessageEvent<Reply>);
    }
    get isGivenUp() {
      const { stop, number } = this.question!;
      return stop !== null && Atomics.load(stop, 0) === number;
    }
    progress(share: number) {
      this.reply({ kind: 'progress', number: this.question!.number, share });
    }
    answer() {
      const { number } = this.question!;
      const result = `${nameOf(this.question!)} done`;
      this.question = null;
      this.reply({ kind: 'done', number, result });
    }
    fail(message: string) {
      const { number } = this.question!;
      this.question = null;
      this.reply({ kind: 'failed', number, failure: { isOurs: false, message } });
    }
    crash() {
      this.question = null;
      this.isAlive = false;
      this.onerror?.({ message: 'out of memory' } as ErrorEvent);
    }
  }
  const alive = () => made.filter(({ isAlive }) => isAlive);
  return {
    made,
    alive,
    create: () => new FakeWorker(),
    asked: () => alive().flatMap(({ question }) => (question ? [nameOf(question)] : [])),
    at: (name: string) => alive().find(({ question }) => question && nameOf(question) === name)!,
  };
}

function setUp(size = 2) {
  const workers = fakeWorkers();
  const scheduler = createScheduler(workers.create, size);
  const want = (name: string, lane: Lane = 'board', more: { signal?: AbortSignal } = {}) => {
    const answer = scheduler.want(name, task(name), { lane, ...more }) as unknown as Promise<string>;
    answer.catch(() => undefined);
    return answer;
  };
  return { workers, scheduler, want };
}

describe('lanes', () => {
  test('never more workers than there may be; the next question goes to the first that is free', async () => {
    const { workers, want } = setUp(2);
    const answers = ['a', 'b', 'c'].map((name) => want(name));
    expect(workers.asked()).toEqual(['a', 'b']);
    workers.at('b').answer();
    expect(workers.asked().sort()).toEqual(['a', 'c']);
    workers.at('c').answer();
    workers.at('a').answer();
    expect(await Promise.all(answers)).toEqual(['a done', 'b done', 'c done']);
    expect(workers.made).toHaveLength(2);
  });

  test('a drag goes before the board, the board before doubt, doubt before advice; within a lane the first come', () => {
    const { workers, want } = setUp(1);
    want('running');
    want('advice', 'advice');
    want('doubt', 'doubt');
    want('board 1');
    want('board 2');
    want('drag', 'drag');
    const order: string[] = [];
    for (let n = 0; n < 6; n++) {
      const [name] = workers.asked();
      order.push(name!);
      workers.at(name!).answer();
    }
    expect(order).toEqual(['running', 'drag', 'board 1', 'board 2', 'doubt', 'advice']);
  });

  test('what runs in the background leaves a worker for the hand', () => {
    const { workers, want } = setUp(3);
    for (let n = 0; n < 5; n++) want(`doubt ${n}`, 'doubt');
    expect(workers.asked()).toHaveLength(2);
    want('drag', 'drag');
    expect(workers.asked()).toContain('drag');
    workers.at('drag').answer();
    expect(workers.asked()).toHaveLength(2);
  });
});

describe('answers', () => {
  test('one run serves all who want it, each told of progress, and is known from then on', async () => {
    const { workers, scheduler, want } = setUp();
    const told = jest.fn();
    const first = want('a');
    const second = scheduler.want('a', task('a'), { lane: 'drag', onProgress: told });
    expect(workers.asked()).toEqual(['a']);
    workers.at('a').progress(0.4);
    expect(told).toHaveBeenCalledWith(0.4);
    workers.at('a').answer();
    expect(await first).toBe('a done');
    expect(await second).toBe('a done');
    expect(await want('a')).toBe('a done');
    expect(workers.asked()).toEqual([]);
    expect(scheduler.known('a')).toBe('a done');
  });

  test('sixty are kept, the longest unused go first', async () => {
    const { workers, scheduler, want } = setUp(1);
    const ask = async (name: string) => {
      const answer = want(name);
      workers
        .alive()
        .find(({ question }) => question)
        ?.answer();
      await answer;
    };
    await ask('old');
    await ask('used');
    for (let n = 0; n < 58; n++) await ask(`${n}`);
    await ask('used');
    await ask('one more');
    expect(scheduler.known('old')).toBeUndefined();
    expect(scheduler.known('used')).toBe('used done');
    expect(scheduler.known('one more')).toBe('one more done');
  });

  test('a failure is its sentence, not kept, and the worker goes on', async () => {
    const { workers, scheduler, want } = setUp(1);
    const answer = want('bad');
    const next = want('good');
    workers.at('bad').fail('There is no feed.');
    await expect(answer).rejects.toThrow('There is no feed.');
    expect(scheduler.known('bad')).toBeUndefined();
    workers.at('good').answer();
    expect(await next).toBe('good done');
    expect(workers.made).toHaveLength(1);
  });
});

describe('a question given up', () => {
  test('ends at once when nobody else wants it; what it still says is not heard', async () => {
    const { workers, want } = setUp(1);
    const own = new AbortController();
    const answer = want('a', 'board', { signal: own.signal });
    const next = want('b');
    const worker = workers.at('a');
    own.abort();
    await expect(answer).rejects.toBeInstanceOf(Cancelled);
    expect(worker.isGivenUp).toBe(true);
    // The worker is still at it: it says so by answering, and only then takes the next.
    expect(workers.asked()).toEqual(['a']);
    worker.answer();
    expect(workers.asked()).toEqual(['b']);
    workers.at('b').answer();
    expect(await next).toBe('b done');
    expect(workers.made).toHaveLength(1);
  });

  test('goes on for the other one who wants it', async () => {
    const { workers, want } = setUp(1);
    const own = new AbortController();
    const mine = want('a', 'board', { signal: own.signal });
    const theirs = want('a');
    own.abort();
    await expect(mine).rejects.toBeInstanceOf(Cancelled);
    expect(workers.at('a').isGivenUp).toBe(false);
    workers.at('a').answer();
    expect(await theirs).toBe('a done');
  });

  test('that waits is struck off; one given up beforehand is never asked', async () => {
    const { workers, want } = setUp(1);
    want('running');
    const own = new AbortController();
    const waiting = want('never', 'board', { signal: own.signal });
    own.abort();
    await expect(waiting).rejects.toBeInstanceOf(Cancelled);
    await expect(want('neither', 'drag', { signal: own.signal })).rejects.toBeInstanceOf(Cancelled);
    workers.at('running').answer();
    expect(workers.asked()).toEqual([]);
  });

  test('and wanted again is asked again', async () => {
    const { workers, want } = setUp(1);
    const own = new AbortController();
    want('a', 'board', { signal: own.signal });
    own.abort();
    const again = want('a');
    workers.at('a').answer();
    workers.at('a').answer();
    expect(await again).toBe('a done');
  });

  test('in a worker whose memory cannot be shared costs that worker', async () => {
    const shared = globalThis.SharedArrayBuffer;
    // A page without isolation has none.
    Reflect.deleteProperty(globalThis, 'SharedArrayBuffer');
    try {
      const { workers, want } = setUp(1);
      const own = new AbortController();
      want('a', 'board', { signal: own.signal });
      const [first] = workers.made;
      const next = want('b');
      own.abort();
      expect(first!.isAlive).toBe(false);
      workers.at('b').answer();
      expect(await next).toBe('b done');
    } finally {
      globalThis.SharedArrayBuffer = shared;
    }
  });
});

describe('a worker that dies', () => {
  test('is replaced and its question asked again', async () => {
    const { workers, want } = setUp(1);
    const answer = want('a');
    workers.at('a').crash();
    expect(workers.made).toHaveLength(2);
    workers.at('a').answer();
    expect(await answer).toBe('a done');
  });

  test('twice over the same question leaves it with a sentence, and the others go on', async () => {
    const { workers, want } = setUp(1);
    const answer = want('a');
    const next = want('b');
    workers.at('a').crash();
    workers.at('a').crash();
    await expect(answer).rejects.toThrow(
      'The forecast broke off 2 times (out of memory). Nothing of the job is lost',
    );
    workers.at('b').answer();
    expect(await next).toBe('b done');
    const again = want('a');
    workers.at('a').answer();
    expect(await again).toBe('a done');
  });

  test('whose answer cannot be read counts as dead', async () => {
    const { workers, want } = setUp(1);
    const answer = want('a');
    workers.at('a').onmessageerror!({} as MessageEvent);
    workers.at('a').answer();
    expect(await answer).toBe('a done');
    expect(workers.made).toHaveLength(2);
  });

  test('over a question given up takes nothing else with it', async () => {
    const { workers, want } = setUp(1);
    const own = new AbortController();
    want('a', 'board', { signal: own.signal });
    const next = want('b');
    own.abort();
    workers.at('a').crash();
    workers.at('b').answer();
    expect(await next).toBe('b done');
  });
});

test('closed, nothing is left waiting and no worker alive; nothing more can be asked', async () => {
  const { workers, scheduler, want } = setUp(2);
  const answers = ['a', 'b', 'c'].map((name) => want(name));
  scheduler.close();
  for (const answer of answers) await expect(answer).rejects.toBeInstanceOf(Cancelled);
  expect(workers.alive()).toEqual([]);
  await expect(want('d')).rejects.toBeInstanceOf(Cancelled);
  expect(workers.alive()).toEqual([]);
});

/** Anything that can happen to a pool, in any order. */
const events = fc.array(
  fc.oneof(
    fc.record({
      kind: fc.constant('want' as const),
      name: fc.constantFrom('a', 'b', 'c', 'd', 'e'),
      lane: fc.constantFrom<Lane>('drag', 'board', 'doubt', 'advice'),
    }),
    fc.record({ kind: fc.constant('giveUp' as const), which: fc.nat(20) }),
    fc.record({
      kind: fc.constantFrom('answer' as const, 'fail' as const, 'crash' as const, 'progress' as const),
      which: fc.nat(3),
    }),
  ),
  { maxLength: 60 },
);

test('whatever happens, in any order: every wish is answered in the end, and no more workers run than may', async () => {
  await fc.assert(
    fc.asyncProperty(fc.integer({ min: 1, max: 3 }), events, async (size, list) => {
      const { workers, want } = setUp(size);
      const wishes: { name: string; own: AbortController; answer: Promise<string> }[] = [];
      for (const event of list) {
        const busy = workers.alive().filter(({ question }) => question);
        if (event.kind === 'want') {
          const own = new AbortController();
          wishes.push({
            name: event.name,
            own,
            answer: want(event.name, event.lane, { signal: own.signal }),
          });
        } else if (event.kind === 'giveUp') wishes[event.which % Math.max(1, wishes.length)]?.own.abort();
        else {
          const worker = busy[event.which % Math.max(1, busy.length)];
          if (event.kind === 'progress') worker?.progress(0.5);
          else if (event.kind === 'fail') worker?.fail('It cannot run.');
          else worker?.[event.kind]();
        }
        expect(workers.alive().length).toBeLessThanOrEqual(size);
        // No question is asked twice at once; one that was given up may be asked again while its old worker ends.
        const wanted = workers
          .alive()
          .flatMap((worker) => (worker.question && !worker.isGivenUp ? [nameOf(worker.question)] : []));
        expect(new Set(wanted).size).toBe(wanted.length);
        await Promise.resolve();
      }
      for (let n = 0; n < 100 && workers.asked().length > 0; n++) workers.at(workers.asked()[0]!).answer();
      expect(workers.asked()).toEqual([]);
      for (const { name, answer } of wishes) {
        const end = await Promise.race([
          answer.catch((error: Error) => error),
          new Promise((resolve) => setTimeout(() => resolve('nothing came'), 200)),
        ]);
        if (end instanceof Error) expect(end.message).toMatch(/cancelled|It cannot run|broke off/);
        else expect(end).toBe(`${name} done`);
      }
    }),
    { numRuns: 300 },
  );
});
