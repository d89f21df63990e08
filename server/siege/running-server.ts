import { spawn, type ChildProcess } from 'node:child_process';
import { cpSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { workshopFolder } from '../../scripts/workshop.mjs';

const root = fileURLToPath(new URL('../../', import.meta.url));

export interface RunningServer {
  readonly url: string;
  readonly pid: number;
  /** At once, as a power switch would; resolves when it is gone. */
  kill(): Promise<void>;
}

/** Starts a server process of its own, compiled before, on a folder, at any free port. */
export function spawnServer(folder: string): {
  readonly child: ChildProcess;
  readonly ready: Promise<RunningServer>;
} {
  const child = spawn(process.execPath, ['server/dist/main.js'], {
    cwd: root,
    env: { ...process.env, WICK_DATA: folder, PORT: '0', LOG_LEVEL: 'info', DATABASE_URL: '' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const gone = new Promise<void>((resolve) => child.on('exit', () => resolve()));
  const ready = new Promise<RunningServer>((resolve, reject) => {
    let said = '';
    child.stdout!.on('data', (text) => {
      said = `${said}${String(text)}`.slice(-20_000);
      const url = /ready: open (http:\S+)/.exec(said)?.[1];
      if (url)
        resolve({
          url,
          pid: child.pid!,
          kill() {
            child.kill('SIGKILL');
            return gone;
          },
        });
    });
    void gone.then(() => reject(new Error(`the server ended: ${said.slice(-600)}`)));
  });
  ready.catch(() => undefined);
  return { child, ready };
}

/** A home folder with a data folder in it as a first start leaves one. */
export async function newHome(name: string): Promise<{ home: string; folder: string }> {
  const home = mkdtempSync(join(tmpdir(), `wick-${name}-`));
  const folder = join(home, 'data');
  cpSync(await workshopFolder(), folder, { recursive: true });
  return { home, folder };
}

/** A request as the program's own pages send it. @throws where no answer comes */
export async function ask<T>(
  url: string,
  method = 'GET',
  body?: unknown,
): Promise<{ status: number; body: T }> {
  const response = await fetch(url, {
    method,
    ...(body === undefined
      ? {}
      : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
  });
  const text = await response.text();
  return { status: response.status, body: (text === '' ? undefined : JSON.parse(text)) as T };
}
