import { chromium } from '@playwright/test';
import { browserPath } from '../../scripts/browser.mjs';

/** Debian's Chromium, with nothing of its own reaching for the network. */
export const launchOptions = {
  executablePath: browserPath(),
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
};

/** A browser that finds this machine under a name, as a device on the network does. */
export const launchKnowing = (name: string) =>
  chromium.launch({
    ...launchOptions,
    args: [...launchOptions.args, `--host-resolver-rules=MAP ${name} 127.0.0.1`],
  });
