import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('../../', import.meta.url));

export interface RunningServer {
  readonly url: string;
  readonly process: ChildProcess;
  /** Ends it at once, as a power cut would. */
  kill(): Promise<void>;
}

export const newFolder = () => join(mkdtempSync(join(tmpdir(), 'wick-')), 'data');

/** Starts the built product on a data folder and waits until it answers. */
export async function startServer(
  folder: string,
  port: number,
  environment: NodeJS.ProcessEnv = {},
): Promise<RunningServer> {
  const child = spawn(process.execPath, ['--import', 'tsx', 'server/src/main.ts'], {
    cwd: root,
    env: { ...process.env, WICK_DATA: folder, PORT: String(port), LOG_LEVEL: 'warn', ...environment },
    stdio: ['ignore', 'inherit', 'inherit'],
  });
  const ended = new Promise<void>((resolve) => child.on('exit', () => resolve()));
  const url = `http://127.0.0.1:${port}`;
  for (let attempt = 0; attempt < 300; attempt++) {
    if (child.exitCode !== null) throw new Error(`the server ended with code ${child.exitCode}`);
    const answer = await fetch(`${url}/api/health`).catch(() => null);
    if (answer?.ok)
      return {
        url,
        process: child,
        kill: () => {
          child.kill('SIGKILL');
          return ended;
        },
      };
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  child.kill('SIGKILL');
  throw new Error('the server did not answer within a minute');
}
