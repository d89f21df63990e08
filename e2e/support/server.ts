import { spawn, type ChildProcess } from 'node:child_process';
import { cpSync, mkdtempSync } from 'node:fs';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { QUICK_TO_START } from '../../server/src/own-files.ts';

const root = fileURLToPath(new URL('../../', import.meta.url));

export interface RunningServer {
  readonly url: string;
  readonly process: ChildProcess;
  /** Ends it at once, as a power cut would. */
  kill(): Promise<void>;
  /** Lets it end by itself. */
  stop(): Promise<void>;
}

/** A data folder of its own, as a first start leaves one. */
export function newFolder(): string {
  const folder = join(mkdtempSync(join(tmpdir(), 'wick-')), 'data');
  cpSync(process.env[WORKSHOP]!, folder, { recursive: true });
  return folder;
}

/** Names the folder that the others are copies of. */
const WORKSHOP = 'WICK_WORKSHOP';

/** @param workshop that new folders are copies of from now on */
export const beginWith = (workshop: string) => void (process.env[WORKSHOP] = workshop);

/** A journey that fails leaves none behind. */
const running = new Set<ChildProcess>();
process.once('exit', () => running.forEach((child) => child.kill('SIGKILL')));

/** Whether something listens there: the server does so once it can answer. */
function isListening(port: number): Promise<boolean> {
  return new Promise((resolve) => {
    const socket = connect(port, '127.0.0.1');
    const found = (is: boolean) => {
      socket.destroy();
      resolve(is);
    };
    socket.once('connect', () => found(true)).once('error', () => found(false));
  });
}

/** Starts the built product on a data folder and waits until it answers. */
export async function startServer(
  folder: string,
  port: number,
  environment: NodeJS.ProcessEnv = {},
): Promise<RunningServer> {
  if (await isListening(port)) throw new Error(`port ${port} is taken: an earlier server still runs`);
  const child = spawn(process.execPath, [...QUICK_TO_START, 'server/dist/main.js'], {
    cwd: root,
    env: { ...process.env, WICK_DATA: folder, PORT: String(port), LOG_LEVEL: 'warn', ...environment },
    stdio: ['ignore', 'inherit', 'inherit'],
  });
  running.add(child);
  const ended = new Promise<void>((resolve) =>
    child.on('exit', () => {
      running.delete(child);
      resolve();
    }),
  );
  const endedBy = (signal: 'SIGKILL' | 'SIGTERM') => {
    child.kill(signal);
    return ended;
  };
  const url = `http://127.0.0.1:${port}`;
  for (let attempt = 0; attempt < 300; attempt++) {
    if (child.exitCode !== null) throw new Error(`the server ended with code ${child.exitCode}`);
    if (await isListening(port))
      return {
        url,
        process: child,
        kill: () => endedBy('SIGKILL'),
        stop: () => endedBy('SIGTERM'),
      };
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  child.kill('SIGKILL');
  throw new Error('the server did not answer within a minute');
}
