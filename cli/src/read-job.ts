import { readFileSync, statSync } from 'node:fs';
import { MAX_FILE_BYTES } from '@wick/contract/api';
import { readJobFile } from '@wick/plan/files/job-file';
import { missingOf } from '@wick/plan/forecast/missing';
import { laidOut, type LaidJob } from '@wick/plan/job/laid';
import { processOf } from '@wick/plan/processes/processes';
import { usualShop, type Shop } from '@wick/contract/shop';
import { CliError } from './exit-codes.ts';

/** Reads and checks a job file; the job with the layout worked on. */
export function readJobAt(path: string): LaidJob {
  let text: string;
  try {
    if (statSync(path).size > MAX_FILE_BYTES)
      throw new CliError('file', `${path} is larger than 4 MB; a job file never is.`);
    text = readFileSync(path, 'utf8');
  } catch (error) {
    if (error instanceof CliError) throw error;
    throw new CliError(
      'file',
      `${path} cannot be read (${(error as NodeJS.ErrnoException).code}). Check the name.`,
    );
  }
  const read = readJobFile(text);
  if (!read.ok) throw new CliError('file', `${path}: ${read.message}`);
  return laidOut(read.value.job);
}

export interface ShopOptions {
  altitude?: string;
  room?: string;
}

export function shopOf({ altitude = '0', room = '20' }: ShopOptions): Shop {
  return {
    ...usualShop,
    altitude: numberIn(altitude, '--altitude', -500, 6000),
    temperature: numberIn(room, '--room', -20, 60) + 273.15,
  };
}

export function numberIn(text: string, name: string, from: number, to: number): number {
  const value = Number(text);
  if (text.trim() === '' || !(value >= from && value <= to))
    throw new CliError('usage', `${name} takes a number from ${from} to ${to}, not “${text}”.`);
  return value;
}

/** A job through which resin is drawn, with all that a forecast needs. @throws CliError with the first thing that is not there */
export function requireFront(job: LaidJob, path: string): void {
  const { front } = processOf(job);
  const [missing] = missingOf(job);
  const why = front.isDrawn ? missing?.message : front.reason;
  if (why !== undefined) throw new CliError('model', `${path}: ${why}`);
}
