import { execFileSync, spawn } from 'node:child_process';
import { once } from 'node:events';
import { chmodSync, chownSync, existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

export interface TestServer {
  /** A new, empty database of it. */
  newDatabase(): string;
  stop(): Promise<void>;
}

const HOME = '/usr/lib/postgresql';

/** Whether a PostgreSQL server is installed here. */
export const hasPostgres = existsSync(HOME);

/** Starts a PostgreSQL server of Debian's on a folder of its own. It refuses to run as root, so root hands it to its own user. */
export async function startPostgres(): Promise<TestServer> {
  const bin = join(HOME, readdirSync(HOME).sort().at(-1)!, 'bin');
  const folder = mkdtempSync(join(tmpdir(), 'wick-postgres-'));
  const isRoot = process.getuid!() === 0;
  const idOf = (kind: '-u' | '-g') => Number(execFileSync('id', [kind, 'postgres'], { encoding: 'utf8' }));
  const user = isRoot ? { uid: idOf('-u'), gid: idOf('-g') } : {};
  if (isRoot) {
    chmodSync(folder, 0o755);
    chownSync(folder, user.uid!, user.gid!);
  }
  const data = join(folder, 'data');
  execFileSync(join(bin, 'initdb'), ['-D', data, '-U', 'wick', '-A', 'trust', '-E', 'UTF8', '--no-sync'], {
    ...user,
    cwd: folder,
    stdio: 'ignore',
  });
  const port = await freePort();
  const server = spawn(
    join(bin, 'postgres'),
    [
      '-D',
      data,
      '-p',
      String(port),
      '-c',
      `unix_socket_directories=${folder}`,
      '-c',
      'listen_addresses=127.0.0.1',
      '-c',
      'fsync=off',
    ],
    { ...user, cwd: folder, stdio: 'ignore' },
  );
  const run = (tool: string, ...args: string[]) =>
    execFileSync(join(bin, tool), ['-h', '127.0.0.1', '-p', String(port), ...args], { stdio: 'ignore' });
  for (let attempt = 0; ; attempt++)
    try {
      run('pg_isready', '-U', 'wick');
      break;
    } catch (error) {
      if (attempt > 100) throw error;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  let count = 0;
  return {
    newDatabase() {
      const name = `wick_${++count}`;
      run('createdb', '-U', 'wick', name);
      return `postgres://wick@127.0.0.1:${port}/${name}`;
    },
    async stop() {
      server.kill('SIGINT');
      await once(server, 'exit');
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

async function freePort(): Promise<number> {
  const server = createServer().listen(0, '127.0.0.1');
  await once(server, 'listening');
  const { port } = server.address() as AddressInfo;
  server.close();
  await once(server, 'close');
  return port;
}
