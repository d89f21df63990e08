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

outbox.flush();
window.addEventListener('online', () => outbox.flush());
