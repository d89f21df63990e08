import type { PlanSketch } from '@wick/contract/api';
import type { Job } from '@wick/contract/job/job';
import type { Outcome } from '@wick/contract/job/result';
import type { Material } from '@wick/contract/materials';
import type { Mould } from '@wick/contract/mould';
import type { RunPlan } from '@wick/contract/run/plan';
import type { EntryBody, Run } from '@wick/contract/run/run';
import type { Instrument } from '@wick/contract/run/instrument';
import type { Shop } from '@wick/contract/shop';
import type { StepLibrary } from '@wick/contract/steps';
import { sql } from 'drizzle-orm';
import {
  bigint,
  bigserial,
  boolean,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uniqueIndex,
} from 'drizzle-orm/pg-core';

export const jobs = pgTable('jobs', {
  id: text().primaryKey(),
  revision: integer().notNull(),
  document: jsonb().$type<Job>().notNull(),
  /** What a list shows of the document, written with it. */
  name: text().notNull().default(''),
  process: text().$type<Job['process']>().notNull().default('infusion'),
  sketch: jsonb().$type<PlanSketch>(),
  mouldId: text('mould_id'),
  materialIds: jsonb('material_ids').$type<string[]>().notNull().default([]),
  currentLayoutId: text('current_layout_id').notNull().default(''),
  resultKey: text('result_key'),
  changedAt: timestamp('changed_at', { withTimezone: true }).notNull().defaultNow(),
  isArchived: boolean('is_archived').notNull().default(false),
  /** Set on a deleted job, which can be brought back until it is cleared away. */
  deletedAt: timestamp('deleted_at', { withTimezone: true }),
  /** Days the program has been in use since: a clock that is set wrong clears nothing away. */
  deletedDays: integer('deleted_days').notNull().default(0),
});

/** Earlier states of a job, thinned with age. */
export const jobRevisions = pgTable(
  'job_revisions',
  {
    jobId: text('job_id')
      .notNull()
      .references(() => jobs.id, { onDelete: 'cascade' }),
    revision: integer().notNull(),
    changedAt: timestamp('changed_at', { withTimezone: true }).notNull(),
    document: jsonb().$type<unknown>().notNull(),
  },
  (table) => [primaryKey({ columns: [table.jobId, table.revision] })],
);

/** What each layout of a job last came to, beside the job: it can be worked out again. */
export const results = pgTable(
  'results',
  {
    jobId: text('job_id')
      .notNull()
      .references(() => jobs.id, { onDelete: 'cascade' }),
    layoutId: text('layout_id').notNull(),
    key: text().notNull(),
    outcome: jsonb().$type<Outcome>().notNull(),
  },
  (table) => [primaryKey({ columns: [table.jobId, table.layoutId] })],
);

export const materials = pgTable('materials', {
  id: text().primaryKey(),
  revision: integer().notNull(),
  material: jsonb().$type<Material>().notNull(),
});

/** Every state a library entry has been in, the present one included. Only ever added to. */
export const materialHistory = pgTable(
  'material_history',
  {
    id: text().notNull(),
    revision: integer().notNull(),
    material: jsonb().$type<Material>().notNull(),
    changedAt: timestamp('changed_at', { withTimezone: true }).notNull().defaultNow(),
    /** The order they came in, whatever the clock said. */
    order: bigserial({ mode: 'number' }).notNull(),
  },
  (table) => [primaryKey({ columns: [table.order] }), index('material_history_id').on(table.id)],
);

export const moulds = pgTable('moulds', {
  id: text().primaryKey(),
  revision: integer().notNull(),
  mould: jsonb().$type<Mould>().notNull(),
});

/** One row. */
export const shop = pgTable('shop', {
  id: integer().primaryKey(),
  revision: integer().notNull(),
  shop: jsonb().$type<Shop>().notNull(),
});

/** The workshop's library of steps, every revision of it; the last one is worked by. Only ever added to. */
export const stepLibraries = pgTable('step_libraries', {
  revision: integer().primaryKey(),
  changedAt: timestamp('changed_at', { withTimezone: true }).notNull().defaultNow(),
  by: text().notNull(),
  steps: jsonb().$type<StepLibrary>().notNull(),
});

/** Single facts about this database, by name. */
export const facts = pgTable('facts', { name: text().primaryKey(), value: jsonb().notNull() });

/** Devices that were let in; the word they show is kept as its hash only. */
export const devices = pgTable('devices', {
  id: text().primaryKey(),
  name: text().notNull(),
  /** What it may do: everything, or look only; a link lets screens in that look only. */
  access: text().$type<'full' | 'view' | 'link'>().notNull(),
  /** The link it came in by; it goes with it. */
  linkId: text('link_id'),
  wordHash: text('word_hash').notNull(),
  /** The word before, good until the new one has come back, and a moment longer: its answer may not have arrived. */
  earlierHash: text('earlier_hash'),
  /** Whether the device has shown the word it was given last. */
  hasShownWord: boolean('has_shown_word').notNull().default(false),
  wordSince: timestamp('word_since', { withTimezone: true }).notNull().defaultNow(),
  addedAt: timestamp('added_at', { withTimezone: true }).notNull().defaultNow(),
  seenAt: timestamp('seen_at', { withTimezone: true }).notNull().defaultNow(),
});

/** Who was let in, refused or sent away. Only ever added to, and cut at its old end. */
export const audit = pgTable('audit', {
  order: bigserial({ mode: 'number' }).primaryKey(),
  at: timestamp({ withTimezone: true }).notNull().defaultNow(),
  what: text().notNull(),
  device: text(),
  address: text().notNull(),
});

/** Parts that are made of a job, and rehearsals of them. */
export const runs = pgTable(
  'runs',
  {
    id: text().primaryKey(),
    jobId: text('job_id')
      .notNull()
      .references(() => jobs.id, { onDelete: 'cascade' }),
    number: integer().notNull(),
    kind: text().$type<Run['kind']>().notNull(),
    speed: doublePrecision().notNull(),
    seed: integer().notNull(),
    startedAt: timestamp('started_at', { withTimezone: true }).notNull().defaultNow(),
    endedAt: timestamp('ended_at', { withTimezone: true }),
  },
  (table) => [uniqueIndex('runs_number').on(table.jobId, table.number)],
);

/** What happened in a run. Only ever added to. */
export const entries = pgTable(
  'entries',
  {
    /** The order they came in, whatever the clocks said. */
    order: bigserial({ mode: 'number' }).primaryKey(),
    id: text().notNull(),
    runId: text('run_id')
      .notNull()
      .references(() => runs.id, { onDelete: 'cascade' }),
    at: timestamp({ withTimezone: true }).notNull(),
    writtenAt: timestamp('written_at', { withTimezone: true }).notNull().defaultNow(),
    by: text().notNull(),
    device: text().notNull(),
    body: jsonb().$type<EntryBody>().notNull(),
  },
  (table) => [
    uniqueIndex('entries_id').on(table.runId, table.id),
    // The shop's book looks for a few kinds among all entries.
    index('entries_kind').on(sql`(${table.body}->>'kind')`, table.runId),
  ],
);

/** What a run is made by, as it was when it was taken; the last one counts. Only ever added to. */
export const runPlans = pgTable(
  'run_plans',
  {
    runId: text('run_id')
      .notNull()
      .references(() => runs.id, { onDelete: 'cascade' }),
    number: integer().notNull(),
    takenAt: timestamp('taken_at', { withTimezone: true }).notNull().defaultNow(),
    plan: jsonb().$type<Omit<RunPlan, 'number' | 'takenAt'>>().notNull(),
  },
  (table) => [primaryKey({ columns: [table.runId, table.number] })],
);

/** Pictures taken in a run; they themselves lie in files beside the database. Only ever added to. */
export const photos = pgTable(
  'photos',
  {
    runId: text('run_id')
      .notNull()
      .references(() => runs.id, { onDelete: 'cascade' }),
    id: text().notNull(),
    addedAt: timestamp('added_at', { withTimezone: true }).notNull().defaultNow(),
    width: integer().notNull(),
    height: integer().notNull(),
    byteCount: integer('byte_count').notNull(),
  },
  (table) => [primaryKey({ columns: [table.runId, table.id] })],
);

export const instruments = pgTable('instruments', {
  /** Short, for its readings. */
  number: integer().primaryKey().generatedByDefaultAsIdentity(),
  id: text().notNull().unique(),
  name: text().notNull(),
  measures: text().$type<Instrument['measures']>().notNull(),
  unit: text().notNull(),
  resolution: doublePrecision().notNull(),
  noise: doublePrecision().notNull(),
  kind: text().$type<Instrument['kind']>().notNull(),
  runId: text('run_id').references(() => runs.id, { onDelete: 'cascade' }),
  /** Of the word it shows; null where it has none. */
  wordHash: text('word_hash'),
  addedAt: timestamp('added_at', { withTimezone: true }).notNull().defaultNow(),
  revokedAt: timestamp('revoked_at', { withTimezone: true }),
  clockOffset: doublePrecision('clock_offset'),
});

/** Every reading, by the id its instrument gave it. Only ever added to. */
export const readings = pgTable(
  'readings',
  {
    order: bigserial({ mode: 'number' }).primaryKey(),
    instrument: integer()
      .notNull()
      .references(() => instruments.number, { onDelete: 'cascade' }),
    id: text().notNull(),
    at: timestamp({ withTimezone: true }).notNull(),
    value: doublePrecision().notNull(),
  },
  (table) => [
    uniqueIndex('readings_id').on(table.instrument, table.id),
    index('readings_at').on(table.instrument, table.at),
  ],
);

/** Readings summed up by stretches of time of several widths, for display; kept with the readings. */
export const readingSpans = pgTable(
  'reading_spans',
  {
    instrument: integer()
      .notNull()
      .references(() => instruments.number, { onDelete: 'cascade' }),
    /** s */
    width: integer().notNull(),
    /** Since 1970, in widths. */
    place: bigint({ mode: 'number' }).notNull(),
    count: integer().notNull(),
    sum: doublePrecision().notNull(),
    low: doublePrecision().notNull(),
    high: doublePrecision().notNull(),
  },
  (table) => [primaryKey({ columns: [table.instrument, table.width, table.place] })],
);
