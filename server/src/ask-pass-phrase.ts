import { createInterface } from 'node:readline/promises';
import { Writable } from 'node:stream';
import { FolderError } from './repo/embedded/folder-error.ts';
import type { AccessService } from './services/access/access-service.ts';
import { faultOfPassPhrase } from './services/access/pass-phrase.ts';
import type { Settings } from './settings.ts';

/** On a network nobody comes in without a pass phrase: where there is none yet it is asked for. @throws FolderError where nobody can be asked */
export async function requirePassPhrase(access: AccessService, { passPhrase }: Settings): Promise<void> {
  if (passPhrase !== null) {
    const fault = faultOfPassPhrase(passPhrase);
    if (fault) throw new FolderError(`WICK_PASS_PHRASE will not do. ${fault}`);
    return access.setPassPhrase(passPhrase);
  }
  if (await access.hasPassPhrase()) return;
  if (!process.stdin.isTTY)
    throw new FolderError(
      'HOST lets others on the network reach this server, and no pass phrase is set. Start it once in a terminal, which asks for one, or set WICK_PASS_PHRASE; or leave HOST out.',
    );
  const hidden = new Writable({ write: (_chunk, _encoding, done) => done() });
  const terminal = createInterface({ input: process.stdin, output: hidden, terminal: true });
  try {
    for (;;) {
      process.stdout.write('Pass phrase for devices on the network: ');
      const phrase = await terminal.question('');
      const fault = faultOfPassPhrase(phrase);
      process.stdout.write(fault ? `\n${fault}\n` : '\n');
      if (!fault) return await access.setPassPhrase(phrase);
    }
  } finally {
    terminal.close();
  }
}
