import { createHash, randomBytes, randomInt, randomUUID, timingSafeEqual } from 'node:crypto';
import type { AccessDevice, AuditLine, Enter, Pairing } from '@wick/contract/access';
import type { Device, DeviceRepo } from '../../repo/device-repo.ts';
import type { FactRepo } from '../../repo/fact-repo.ts';
import { ProblemError } from '../problem.ts';
import { createAttempts } from './attempts.ts';
import { faultOfPassPhrase, hashPassPhrase, isPassPhrase } from './pass-phrase.ts';

export type AccessService = ReturnType<typeof createAccessService>;

/** Who asks: a device that was let in, with the word to answer it with where that has changed. */
export interface Visitor {
  readonly id: string;
  readonly name: string;
  readonly access: 'full' | 'view';
  /** To be set as its cookie; null where it keeps the one it has. */
  readonly cookie: string | null;
}

const PASS_PHRASE = 'passPhrase';
/** A word is good for so long before it is exchanged; the one before for a moment longer; ms. */
const WORD_LASTS = 3_600_000;
const EARLIER_LASTS = 60_000;
const PAIRING_LASTS = 5 * 60_000;
const MOST_PAIRINGS = 5;
const AUDIT_SHOWN = 200;

const newWord = () => randomBytes(32).toString('base64url');
const hashOf = (word: string) => createHash('sha256').update(word).digest('hex');
const isSame = (a: string, b: string) =>
  a.length === b.length && timingSafeEqual(Buffer.from(a), Buffer.from(b));

/** Lets devices in, by pass phrase, by a code that one inside has asked for, or by a link to look only. */
export function createAccessService(
  devices: DeviceRepo,
  facts: Pick<FactRepo, 'find' | 'keep'>,
  clock: { readonly now: () => number; readonly steady: () => number } = {
    now: Date.now,
    steady: () => performance.now(),
  },
) {
  const attempts = createAttempts(clock.steady);
  let pairings: { readonly code: string; readonly until: number }[] = [];

  /** @returns the cookie of a new device */
  async function admit(
    name: string,
    access: Device['access'],
    linkId: string | null,
    address: string,
  ): Promise<string> {
    const id = randomUUID();
    const word = newWord();
    await devices.add({ id, name, access, linkId, wordHash: hashOf(word), wordSince: new Date(clock.now()) });
    await devices.note({ what: access === 'link' ? 'link made' : 'let in', device: name, address });
    return `${id}.${word}`;
  }

  /** Whether a code is one that was asked for; it is good once. */
  function takeCode(code: string): boolean {
    pairings = pairings.filter(({ until }) => until > clock.steady());
    const found = pairings.find((pairing) => isSame(pairing.code, code));
    pairings = pairings.filter((pairing) => pairing !== found);
    return found !== undefined;
  }

  /** What someone at the door may do; null where they are not let in. */
  async function judge(
    asked: Enter,
  ): Promise<{ access: 'full' | 'view'; linkId: string | null; name: string } | null> {
    switch (asked.by) {
      case 'passPhrase':
        return (await isPassPhrase(asked.passPhrase, await facts.find(PASS_PHRASE)))
          ? { access: 'full', linkId: null, name: asked.name }
          : null;
      case 'code':
        return takeCode(asked.code) ? { access: 'full', linkId: null, name: asked.name } : null;
      case 'link': {
        const { device: link, hash } = await shownBy(asked.link);
        const isGood = link?.access === 'link' && isSame(hash, link.wordHash);
        return isGood ? { access: 'view', linkId: link.id, name: link.name } : null;
      }
    }
  }

  /** The device that a cookie names, and the hash of the word it shows. */
  async function shownBy(cookie: string): Promise<{ device: Device | null; hash: string }> {
    const [id = '', word = ''] = cookie.split('.');
    return { device: /^[0-9a-f-]{36}$/.test(id) ? await devices.find(id) : null, hash: hashOf(word) };
  }

  /** Gives a device a new word; the one it showed stays good until the new one is. Null where another request was quicker. */
  async function exchange({ id, wordHash }: Device, shown: string): Promise<string | null> {
    const next = newWord();
    const to = { wordHash: hashOf(next), earlierHash: shown, wordSince: new Date(clock.now()) };
    return (await devices.changeWord(id, wordHash, to)) ? `${id}.${next}` : null;
  }

  return {
    hasPassPhrase: async () => (await facts.find(PASS_PHRASE)) !== null,

    /** @throws ProblemError BAD_REQUEST where it is too short */
    async setPassPhrase(phrase: string): Promise<void> {
      const fault = faultOfPassPhrase(phrase);
      if (fault) throw new ProblemError('BAD_REQUEST', fault);
      await facts.keep(PASS_PHRASE, await hashPassPhrase(phrase));
    },

    /** @returns the cookie to set. @throws ProblemError NOT_LET_IN, TOO_OFTEN */
    async enter(asked: Enter, address: string): Promise<string> {
      const wait = attempts.waitFor(address);
      if (wait > 0 || !attempts.begin(address))
        throw new ProblemError(
          'TOO_OFTEN',
          `There were too many wrong tries. Wait ${Math.max(1, Math.ceil(wait / 1000))} s and try again.`,
        );
      let judged: Awaited<ReturnType<typeof judge>> = null;
      try {
        judged = await judge(asked);
      } finally {
        attempts.end(address, judged !== null);
      }
      if (judged) return admit(judged.name, judged.access, judged.linkId, address);
      await devices.note({ what: 'refused', device: 'name' in asked ? asked.name : null, address });
      throw new ProblemError('NOT_LET_IN', 'That is not right, or no longer good. Check it and try again.');
    },

    /**
     * Null for whom nobody let in. A word from before one that was already shown is stolen or copied, or the newer one is: the
     * device is sent away.
     */
    async visitorOf(cookie: string, address: string): Promise<Visitor | null> {
      const { device, hash } = await shownBy(cookie);
      if (!device || device.access === 'link') return null;
      const { id, name, access, wordHash, earlierHash, hasShownWord, wordSince } = device;
      const age = Math.abs(clock.now() - wordSince.getTime());
      const visitor = { id, name, access, cookie: null };
      if (isSame(hash, wordHash)) {
        if (!hasShownWord) await devices.noteShown(id);
        return age < WORD_LASTS ? visitor : { ...visitor, cookie: await exchange(device, hash) };
      }
      if (!earlierHash || !isSame(hash, earlierHash)) return null;
      if (age < EARLIER_LASTS) return visitor;
      // The answer with the new one never arrived.
      if (!hasShownWord) return { ...visitor, cookie: await exchange(device, hash) };
      await devices.remove(id);
      await devices.note({
        what: 'sent away: its word had been used by someone else',
        device: name,
        address,
      });
      return null;
    },

    /** A code by which one more device may come in within five minutes. */
    pair(): Pairing {
      const code = String(randomInt(1_000_000)).padStart(6, '0');
      pairings = [...pairings, { code, until: clock.steady() + PAIRING_LASTS }].slice(-MOST_PAIRINGS);
      return { code, seconds: PAIRING_LASTS / 1000 };
    },

    /** What a link to look only ends in. */
    makeLink: (name: string, address: string): Promise<string> => admit(name, 'link', null, address),

    list: async (own: string | null): Promise<AccessDevice[]> =>
      (await devices.list()).map(({ id, name, access, addedAt, seenAt }) => ({
        id,
        name,
        access,
        isOwn: id === own,
        addedAt: addedAt.toISOString(),
        seenAt: seenAt.toISOString(),
      })),

    /** @throws ProblemError NOT_FOUND */
    async sendAway(id: string, by: string | null, address: string): Promise<void> {
      const device = await devices.find(id);
      if (!device || !(await devices.remove(id)))
        throw new ProblemError('NOT_FOUND', 'This device was already sent away.');
      await devices.note({ what: by === id ? 'left' : 'sent away', device: device.name, address });
    },

    audit: async (): Promise<AuditLine[]> =>
      (await devices.notes(AUDIT_SHOWN)).map(({ at, what, device, address }) => ({
        at: at.toISOString(),
        what,
        device,
        address,
      })),
  };
}
