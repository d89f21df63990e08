import { cpSync, existsSync, renameSync } from 'node:fs';
import type { StoredJob } from '@wick/contract/api';
import { hasFront } from '@wick/plan/processes/processes';
import { workshopFolder } from '../../scripts/workshop.mjs';
import { startServer } from './server.ts';

/** Nodes of a forecast in a journey: what is asked of the pages is the same, in a tenth of the time. */
export const QUICK = 500;

/** The demo workshop with coarser forecasts in its jobs, for journeys to begin with a copy of. Made once for these sources. @returns its folder */
export async function quickWorkshop(): Promise<string> {
  const usual = await workshopFolder();
  const quick = `${usual}-quick`;
  if (existsSync(quick)) return quick;
  const making = `${quick}.${process.pid}`;
  cpSync(usual, making, { recursive: true });
  const server = await startServer(making, 4299);
  const jobs = `${server.url}/api/jobs`;
  const list = (await (await fetch(jobs)).json()) as { id: string }[];
  // The one that was changed last stands first.
  for (const { id } of list.reverse()) {
    const { revision, document } = (await (await fetch(`${jobs}/${id}`)).json()) as StoredJob;
    if (!hasFront(document)) continue;
    const answer = await fetch(`${jobs}/${id}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({
        revision,
        document: { ...document, forecast: { ...document.forecast, nodeCount: QUICK } },
      }),
    });
    if (!answer.ok) throw new Error(`${document.name} was not made quick: ${await answer.text()}`);
  }
  await server.stop();
  renameSync(making, quick);
  return quick;
}
