import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { existsSync, renameSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fingerprint } from './built.mjs';
import { root } from './setup.mjs';

/**
 * A data folder as a first start of the compiled server leaves it, for tests to begin with a copy of. Made once for these sources.
 * @returns its path
 */
export async function workshopFolder() {
  const folder = join(tmpdir(), `wick-workshop-${fingerprint(root, 'server').slice(0, 16)}`);
  if (!existsSync(folder)) {
    const own = `${folder}.${randomUUID()}`;
    await firstStart(own);
    // Another process may have made it meanwhile.
    if (!existsSync(folder)) renameSync(own, folder);
  }
  return folder;
}

function firstStart(folder) {
  return new Promise((resolve, reject) => {
    const server = spawn(process.execPath, ['server/dist/main.js'], {
      cwd: root,
      env: { ...process.env, WICK_DATA: folder, PORT: '0', LOG_LEVEL: 'info', DATABASE_URL: '' },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    server.stdout.on('data', (text) => {
      if (String(text).includes('Vivid Wick is ready')) server.kill('SIGTERM');
    });
    server.on('exit', (code) =>
      code === 0 ? resolve() : reject(new Error(`the first start ended with ${code}`)),
    );
  });
}
