import { spawn } from 'node:child_process';
import { openFrontDesk } from './front-desk.mjs';
import { build, installPackages, readJson, requireNode, root } from './setup.mjs';

/**
 * Everything a fresh clone needs, then the server with demo data. At its address a page says how far that is; the server is given the
 * address when the pages are built and its records are open. The two go on side by side.
 */
const STEPS = {
  packages: 'Fetch the packages',
  server: 'Build the server',
  records: 'Open the records',
  pages: 'Build the pages',
};
const usual = readJson(`${root}server/src/usual-address.json`);
const { PORT = usual.port, HOST = usual.host, TLS, TLS_CERT } = process.env;

/** On this machine, in the open: elsewhere the server has to ask first who comes. */
const canTell =
  /^(127\.0\.0\.1|localhost|::1)$/.test(HOST) && !TLS_CERT && TLS !== 'made' && Number(PORT) > 0;

requireNode();
const desk = canTell
  ? await openFrontDesk({ port: Number(PORT), host: HOST, steps: STEPS }).catch(addressTaken)
  : null;
if (desk) console.log(`Getting ready: http://${HOST === '::1' ? '[::1]' : HOST}:${PORT} says how far it is.`);

let server = null;
for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => (server ? server.kill(signal) : process.exit(130)));
try {
  await step('packages', (tell) => installPackages(false, tell));
  await step('server', () => build('server'));
  const [open] = await Promise.all([
    step('records', startServer),
    step('pages', (tell) => build('web', tell)),
  ]);
  await desk?.close();
  open();
} catch (error) {
  console.error(error.message);
  server?.kill('SIGTERM');
  process.exit(1);
}

async function step(name, work) {
  desk?.begin(name);
  const made = await work((done, all) => desk?.tell(name, done, all));
  desk?.end(name);
  return made;
}

/** @returns what lets it take its address */
function startServer() {
  server = spawn(process.execPath, ['server/dist/main.js'], {
    cwd: root,
    stdio: ['inherit', 'inherit', 'inherit', 'ipc'],
  });
  server.on('exit', (code) => process.exit(code ?? 0));
  return new Promise((resolve) => {
    server.once('message', () =>
      resolve(() => {
        server.send('the address is yours');
        server.once('message', squeeze);
      }),
    );
  });
}

/** Once it answers: files as they travel on a network. */
function squeeze() {
  const child = spawn(process.execPath, ['scripts/squeeze.mjs'], { cwd: root, stdio: 'ignore' });
  child.on('exit', () => server.connected && server.send('compressed'));
  child.unref();
}

function addressTaken(error) {
  console.error(
    error.code === 'EADDRINUSE'
      ? `Something answers at port ${PORT} already. If it is Vivid Wick, open http://${HOST}:${PORT}; if not, set PORT to another number.`
      : `Port ${PORT} of ${HOST} cannot be used (${error.message}). Set PORT to another number.`,
  );
  process.exit(1);
}
