import { X509Certificate } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { isIP } from 'node:net';
import { hostname, networkInterfaces } from 'node:os';
import { join } from 'node:path';
import { generate } from 'selfsigned';
import { FolderError, wordsOf } from '../repo/embedded/folder-error.ts';
import type { Settings } from '../settings.ts';

export interface Certificate {
  readonly cert: string;
  readonly key: string;
  /** SHA-256, to compare with what a browser shows. */
  readonly fingerprint: string;
}

const DAYS = 825;
const RENEW_BEFORE_DAYS = 30;

/** Names and addresses under which this machine is reached on its network. */
export function namesOnNetwork(): string[] {
  const addresses = Object.values(networkInterfaces())
    .flat()
    .flatMap((one) => (one && !one.internal ? [one.address.replace(/%.*$/, '')] : []));
  const host = hostname().toLowerCase();
  return [...new Set([host, `${host}.local`, ...addresses])];
}

/** A certificate that is given, or one made here and kept in the data folder. @throws FolderError */
export async function certificateOf(
  { tls }: Settings,
  root: string,
  names: readonly string[],
): Promise<Certificate | null> {
  if (tls.kind === 'off') return null;
  try {
    if (tls.kind === 'given')
      return withFingerprint(readFileSync(tls.cert, 'utf8'), readFileSync(tls.key, 'utf8'));
    return await madeCertificate(join(root, 'tls'), names);
  } catch (error) {
    throw new FolderError(`The certificate cannot be used (${wordsOf(error)}). Check TLS_CERT and TLS_KEY.`);
  }
}

async function madeCertificate(folder: string, names: readonly string[]): Promise<Certificate> {
  const [certFile, keyFile] = [join(folder, 'cert.pem'), join(folder, 'key.pem')];
  if (existsSync(certFile) && existsSync(keyFile)) {
    const kept = withFingerprint(readFileSync(certFile, 'utf8'), readFileSync(keyFile, 'utf8'));
    if (isGood(new X509Certificate(kept.cert), names)) return kept;
  }
  const made = await generate([{ name: 'commonName', value: 'Vivid Wick' }], {
    keyType: 'ec',
    algorithm: 'sha256',
    notAfterDate: new Date(Date.now() + DAYS * 86_400_000),
    extensions: [
      { name: 'basicConstraints', cA: false },
      { name: 'keyUsage', digitalSignature: true },
      { name: 'extKeyUsage', serverAuth: true },
      {
        name: 'subjectAltName',
        altNames: ['localhost', '127.0.0.1', ...names].map((name) =>
          isIP(name) ? { type: 7 as const, ip: name } : { type: 2 as const, value: name },
        ),
      },
    ],
  });
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  writeFileSync(keyFile, made.private, { mode: 0o600 });
  writeFileSync(certFile, made.cert, { mode: 0o600 });
  return withFingerprint(made.cert, made.private);
}

const withFingerprint = (cert: string, key: string): Certificate => ({
  cert,
  key,
  fingerprint: new X509Certificate(cert).fingerprint256,
});

const isGood = (certificate: X509Certificate, names: readonly string[]) =>
  new Date(certificate.validTo).getTime() - Date.now() > RENEW_BEFORE_DAYS * 86_400_000 &&
  names.every((name) => (isIP(name) ? certificate.checkIP(name) : certificate.checkHost(name)) !== undefined);
