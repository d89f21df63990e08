import asc from 'assemblyscript/asc';
import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const source = fileURLToPath(new URL('obstacle.ts', import.meta.url));
const target = fileURLToPath(new URL('../src/flow/kernel-binary.ts', import.meta.url));

/** Compiles the kernel; the bytes are the same on every machine. */
export async function compileKernel() {
  let binary;
  const { error, stderr } = await asc.main(
    [source, '--outFile', 'kernel.wasm', '-O3', '--noAssert', '--runtime', 'stub', '--importMemory'],
    { writeFile: (name, bytes) => name === 'kernel.wasm' && (binary = bytes), listFiles: () => [] },
  );
  if (error) throw new Error(`${error.message}\n${stderr.toString()}`);
  return Buffer.from(binary).toString('base64');
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const lines = (await compileKernel()).match(/.{1,96}/g).map((line) => `  '${line}',`);
  writeFileSync(
    target,
    `/** The compiled flow kernel, base64. Written by \`npm run kernel\` from core/kernel/obstacle.ts; do not edit. */\n` +
      `export const kernelBinary = [\n${lines.join('\n')}\n].join('');\n`,
  );
}
