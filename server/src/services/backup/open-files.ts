import { writeCsv } from '@wick/plan/files/csv';
import { writeJobFile } from '@wick/plan/files/job-file';
import { csvOf } from '@wick/plan/files/library/sheets';
import { Zip, ZipDeflate } from 'fflate';
import type { Services } from '../services.ts';

/** What the open files are read from: any of it may refuse, and is then left out and told. */
export type OpenFilesFrom = Pick<
  Services,
  'jobs' | 'library' | 'moulds' | 'shop' | 'steps' | 'runs' | 'plans' | 'photos' | 'instruments' | 'readings'
>;

/**
 * Every job, the library, the moulds and the settings as files that anything can read, in one ZIP. What cannot be read is left out,
 * and named in a file of its own, with what is stored of it.
 * @param onChunk takes the ZIP piece by piece
 * @returns how many jobs are in it, and how many could not be read
 */
export async function writeOpenFiles(
  from: OpenFilesFrom,
  onChunk: (chunk: Uint8Array) => void,
): Promise<{ jobs: number; lost: number }> {
  const zip = new Zip((error, chunk) => {
    if (error) throw error;
    onChunk(chunk);
  });
  const putBytes = (name: string, bytes: Uint8Array) => {
    const file = new ZipDeflate(name, { level: 6 });
    zip.add(file);
    file.push(bytes, true);
  };
  const put = (name: string, text: string) => putBytes(name, Buffer.from(text));
  const lost: (readonly [string, string])[] = [];
  const attempt = async (what: string, work: () => Promise<void>) => {
    try {
      await work();
    } catch (error) {
      lost.push([what, error instanceof Error ? error.message : String(error)]);
    }
  };
  let jobs = 0;
  for (const id of await from.jobs.allIds())
    await attempt(`job ${id}`, async () => {
      try {
        const file = await from.jobs.exportFile(id);
        put(`jobs/${fileName(file.job.name)} ${id.slice(0, 8)}.wick.json`, writeJobFile(file));
        jobs += 1;
      } catch (error) {
        put(`unreadable/${id}.json`, JSON.stringify(await from.jobs.stored(id), null, 2));
        throw error;
      }
    });
  for (const id of await from.jobs.allIds())
    await attempt(`runs of job ${id}`, async () => {
      const name = fileName(await from.jobs.nameOf(id));
      for (const run of await from.runs.listOf(id)) {
        const entries = await from.runs.entriesOf(run.id);
        const text = JSON.stringify(
          { run, plan: await from.plans.planOf(run.id).catch(() => null), entries },
          null,
          2,
        );
        put(`runs/${name} ${id.slice(0, 8)} ${run.kind} ${run.number}.json`, text);
      }
    });
  await attempt('pictures', async () => {
    for (const { runId, name, data } of from.photos.files())
      putBytes(`pictures/${runId}/${name}`, Buffer.from(data, 'base64'));
  });
  await attempt('library', async () => {
    const materials = (await from.library.list()).map(({ material }) => material);
    put('library.csv', csvOf(materials));
    put('library.json', JSON.stringify(materials, null, 2));
  });
  await attempt('moulds', async () => put('moulds.json', JSON.stringify(await from.moulds.list(), null, 2)));
  await attempt('steps', async () => put('steps.json', JSON.stringify(await from.steps.get(), null, 2)));
  await attempt('shop', async () => put('shop.json', JSON.stringify(await from.shop.getShop(), null, 2)));
  await attempt('instruments', async () =>
    put('instruments.json', JSON.stringify(await from.instruments.list(), null, 2)),
  );
  await attempt('readings', () => putReadings(zip, from));
  if (lost.length > 0) put('what is missing.csv', writeCsv([['what', 'why'], ...lost]));
  zip.end();
  return { jobs, lost: lost.length };
}

/** There may be millions: page by page. SI, in the units of what each instrument measures. */
async function putReadings(zip: Zip, { readings }: Pick<OpenFilesFrom, 'readings'>): Promise<void> {
  const file = new ZipDeflate('readings.csv', { level: 6 });
  zip.add(file);
  file.push(Buffer.from(writeCsv([['instrument', 'id', 'at', 'value']])));
  for await (const page of readings.pages())
    file.push(
      Buffer.from(
        `\r\n${writeCsv(
          page.map(({ instrumentId, id, at, value }) => [
            instrumentId,
            id,
            new Date(at).toISOString(),
            value,
          ]),
        )}`,
      ),
    );
  file.push(new Uint8Array(), true);
}

const fileName = (name: string) => name.replace(/[^\p{L}\p{N}]+/gu, '-').slice(0, 60);
