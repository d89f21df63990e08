import { api, isPassing } from '../data/api.ts';
import { openDeviceStores } from '../data/device-stores.ts';
import { createOutbox } from '../session/outbox.ts';

const stores = openDeviceStores();

/** What this device has said and not sent yet, whatever page is open. */
export const outbox = createOutbox({
  ...{ entries: stores.entries, photos: stores.photos },
  send: api.addEntries,
  sendPhoto: api.addPhoto,
  isPassing,
});
export const { copies } = stores;

/** What a page that was closed since has left behind is looked for so often, ms. */
const LOOK_EVERY = 15_000;

outbox.flush();
setInterval(() => outbox.flush(), LOOK_EVERY);
window.addEventListener('online', () => outbox.flush());
