import type { Reading, ReadingWindow, Samples } from '@wick/contract/run/instrument';
import { and, asc, eq, gt, sql, type SQL } from 'drizzle-orm';
import type { Database } from './database.ts';
import { instruments, readings, readingSpans } from './tables.ts';

export type ReadingRepo = ReturnType<typeof createReadingRepo>;

/** A reading with the number of its instrument. */
export interface NumberedReading extends Reading {
  readonly instrument: number;
}
export interface KeptReading extends NumberedReading {
  readonly order: number;
}

/** Stretches that readings are summed up by as they come in, s. */
const WIDTHS = [4, 32, 256, 2048, 16_384] as const;
/** Single readings of a window that are still gone through one by one. */
const MOST_SINGLE = 10_000;

const sums = sql.raw(
  'instrument, width, floor(extract(epoch from at) / width)::bigint, count(*), sum(value), min(value), max(value)',
);
const everyWidth = sql.raw(`unnest(array[${WIDTHS.join(',')}]) as width group by 1, 2, 3`);

/** The sums of all readings, where there are none yet. */
export async function sumUpReadings(on: Pick<Database, 'execute'>): Promise<void> {
  await on.execute(
    sql`insert into reading_spans (instrument, width, place, count, sum, low, high) select ${sums} from readings cross join ${everyWidth}`,
  );
}

const time = (ms: number): SQL => sql`to_timestamp(${ms / 1000}::float8)`;

/** Readings: added to and read, never changed. */
export function createReadingRepo(database: Database) {
  /** Rows of a statement: the two databases answer differently. */
  async function rowsOf<T>(statement: SQL): Promise<T[]> {
    return ((await database.execute(statement)) as unknown as { rows: T[] }).rows;
  }

  /** What was read in a stretch, by the sums of one width; single readings counted by its own. */
  async function countIn(instrument: number, from: number, to: number, width: number): Promise<number> {
    const [row] = await rowsOf<{ count: string | number | null }>(
      sql`select sum(count) as count from ${readingSpans} where instrument = ${instrument} and width = ${width}
        and place between ${Math.floor(from / 1000 / width)} and ${Math.floor(to / 1000 / width)}`,
    );
    return Number(row?.count ?? 0);
  }

  return {
    /** All in one, each at most once. @returns those that were not known yet, in their order */
    async append(sent: readonly NumberedReading[]): Promise<KeptReading[]> {
      if (sent.length === 0) return [];
      const rows = sent.map(({ instrument, id, at, value }) => ({ i: instrument, d: id, t: at, v: value }));
      const kept = await rowsOf<{
        order: string;
        instrument: number;
        id: string;
        t: number;
        value: number;
      }>(sql`
        with sent as (
          select i, d, to_timestamp(t / 1000) as at, v, n
          from rows from (json_to_recordset(${JSON.stringify(rows)}::json) as (i integer, d text, t float8, v float8))
            with ordinality as r(i, d, t, v, n)
        ), kept as (
          insert into readings (instrument, id, at, value) select i, d, at, v from sent order by n
          on conflict do nothing
          returning "order", instrument, id, at, value
        ), summed as (
          insert into reading_spans (instrument, width, place, count, sum, low, high)
          select ${sums} from kept cross join ${everyWidth}
          on conflict (instrument, width, place) do update set
            count = reading_spans.count + excluded.count, sum = reading_spans.sum + excluded.sum,
            low = least(reading_spans.low, excluded.low), high = greatest(reading_spans.high, excluded.high)
        )
        select "order", instrument, id, (extract(epoch from at) * 1000)::float8 as t, value from kept order by "order"`);
      return kept.map(({ order, instrument, id, t, value }) => ({
        ...{ order: Number(order), instrument, id, value },
        at: Math.round(Number(t)),
      }));
    },

    /** Those that came in after another, oldest first. */
    async after(order: number, most: number): Promise<(KeptReading & { instrumentId: string })[]> {
      const rows = await database
        .select({
          order: readings.order,
          instrument: readings.instrument,
          instrumentId: instruments.id,
          id: readings.id,
          at: readings.at,
          value: readings.value,
        })
        .from(readings)
        .innerJoin(instruments, eq(instruments.number, readings.instrument))
        .where(gt(readings.order, order))
        .orderBy(asc(readings.order))
        .limit(most);
      return rows.map((row) => ({ ...row, at: row.at.getTime() }));
    },

    /** 0 where there is none. */
    async lastOrder(): Promise<number> {
      const [row] = await rowsOf<{ last: string | null }>(sql`select max("order") as last from readings`);
      return Number(row?.last ?? 0);
    },

    /** Of every instrument the one read last, by its number. */
    async latest(): Promise<Map<number, { at: number; value: number }>> {
      const rows = await rowsOf<{ instrument: number; t: number; value: number }>(sql`
        select number as instrument, (extract(epoch from at) * 1000)::float8 as t, value from instruments
        cross join lateral (select at, value from readings where instrument = number order by at desc limit 1) as last`);
      return new Map(
        rows.map(({ instrument, t, value }) => [instrument, { at: Math.round(Number(t)), value }]),
      );
    },

    /** @param from and to, ms since 1970  @param places of the display */
    async window(instrument: number, from: number, to: number, places: number): Promise<ReadingWindow> {
      const seconds = Math.max((to - from) / 1000 / places, 1e-3);
      const wider = WIDTHS.find((width) => width >= seconds) ?? WIDTHS.at(-1)!;
      const finest = (await countIn(instrument, from, to, wider)) <= MOST_SINGLE;
      const rows = await rowsOf<{ start: number; low: number; high: number; sum: number; count: number }>(
        finest
          ? sql`select floor(extract(epoch from at) / ${seconds}::float8) * ${seconds}::float8 as start,
              min(value) as low, max(value) as high, sum(value) as sum, count(*)::float8 as count
              from readings where instrument = ${instrument} and at between ${time(from)} and ${time(to)}
              group by 1 order by 1`
          : sql`select (place * width)::float8 as start, low, high, sum, count::float8 as count from reading_spans
              where instrument = ${instrument} and width = ${wider}
              and place between ${Math.floor(from / 1000 / wider)} and ${Math.floor(to / 1000 / wider)} order by place`,
      );
      return {
        starts: rows.map(({ start }) => Math.round(start * 1000)),
        lows: rows.map(({ low }) => low),
        highs: rows.map(({ high }) => high),
        means: rows.map(({ sum, count }) => sum / count),
        count: rows.reduce((sum, { count }) => sum + count, 0),
      };
    },

    /** Single readings, evenly left out where there are more than asked for. */
    async samples(instrument: number, from: number, to: number, most: number): Promise<Samples> {
      const isWithin = and(
        eq(readings.instrument, instrument),
        sql`${readings.at} between ${time(from)} and ${time(to)}`,
      );
      const [counted] = await database
        .select({ count: sql<string>`count(*)` })
        .from(readings)
        .where(isWithin);
      const count = Number(counted?.count ?? 0);
      const each = Math.max(1, Math.ceil(count / most));
      const rows = await rowsOf<{ t: number; value: number }>(sql`
        select (extract(epoch from at) * 1000)::float8 as t, value from (
          select at, value, row_number() over (order by at, "order") as n from readings where ${isWithin}
        ) as numbered where (n - 1) % ${each} = 0 order by n`);
      return {
        ats: rows.map(({ t }) => Math.round(Number(t))),
        values: rows.map(({ value }) => value),
        count,
      };
    },
  };
}
