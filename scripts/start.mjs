import { spawn } from 'node:child_process';
import { buildWeb, installPackages, root } from './setup.mjs';

/** Everything a fresh clone needs, then the server with demo data. */
installPackages();
buildWeb();
const server = spawn(process.execPath, ['--import', 'tsx', 'server/src/main.ts'], {
  cwd: root,
  stdio: 'inherit',
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
