import type { VerdictSummary } from '@wick/contract/api';
import type { Job } from '@wick/contract/job';
import type { Material } from '@wick/contract/materials';
import type { Shop } from '@wick/contract/shop';
import { integer, jsonb, pgTable, text, timestamp } from 'drizzle-orm/pg-core';

export const jobs = pgTable('jobs', {
  id: text().primaryKey(),
  revision: integer().notNull(),
  document: jsonb().$type<Job>().notNull(),
  verdict: jsonb().$type<VerdictSummary>(),
  changedAt: timestamp('changed_at', { withTimezone: true }).notNull().defaultNow(),
});

export const materials = pgTable('materials', {
  id: text().primaryKey(),
  revision: integer().notNull(),
  material: jsonb().$type<Material>().notNull(),
});

/** One row. */
export const shop = pgTable('shop', {
  id: integer().primaryKey(),
  revision: integer().notNull(),
  shop: jsonb().$type<Shop>().notNull(),
});
