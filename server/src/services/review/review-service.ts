import { existsSync } from 'node:fs';
import type { BookLine, OpenLesson } from '@wick/contract/review';
import type { RunPlan } from '@wick/contract/run/plan';
import type { Entry } from '@wick/contract/run/run';
import { infusionOf } from '@wick/plan/infusion/infusion';
import { laidOut } from '@wick/plan/job/laid';
import { fillSpanOf } from '@wick/plan/review/fill-review';
import { absoluteOf, byFineness, hungAt, isGauge } from '@wick/plan/run/gauges';
import { runStateOf } from '@wick/plan/run/state';
import { reportOf } from '@wick/plan/review/report';
import { ambientOf } from '@wick/plan/shop/ambient';
import type { BagReading } from '@wick/plan/infusion/live-clock';
import type { BookRepo } from '../../repo/book-repo.ts';
import type { InstrumentService } from '../instruments/instrument-service.ts';
import type { PhotoService } from '../photos/photo-service.ts';
import type { RunPlans } from '../run/run-plans.ts';
import type { RunService } from '../run/run-service.ts';
import { createAside, TooMuchError } from '../aside.ts';
import { ProblemError } from '../problem.ts';
import { widthOf, type ReportPaper } from './paper.ts';
import type { PdfRequest } from './pdf.ts';

export type ReviewService = ReturnType<typeof createReviewService>;

interface ReviewParts {
  readonly book: BookRepo;
  readonly runs: Pick<RunService, 'find' | 'entriesOf'>;
  readonly plans: Pick<RunPlans, 'planOf'>;
  readonly instruments: Pick<InstrumentService, 'list' | 'window'>;
  readonly photos: Pick<PhotoService, 'fileOf'>;
  readonly write: (request: PdfRequest) => Promise<Uint8Array>;
}

/** Writes records in a thread of their own. */
export function createRecordWriter(): { write: ReviewParts['write']; close: () => Promise<void> } {
  const aside = createAside<PdfRequest, Uint8Array>(new URL('./pdf.worker.ts', import.meta.url), {
    ...{ memory: 1024, longest: 120_000, waiting: 10, things: 'records' },
  });
  return {
    async write(request) {
      try {
        return await aside.ask(request);
      } catch (error) {
        if (!(error instanceof TooMuchError)) throw error;
        const what = error.of === 'memory' ? 'needs more memory than there is for one' : 'takes too long';
        throw new ProblemError(
          'TOO_LARGE',
          `The record as PDF ${what}. Nothing is lost: take it as JSON or CSV, or strike out pictures.`,
        );
      }
    },
    close: aside.close,
  };
}

/** Points of a curve on paper. */
const PLACES = 400;
/** Pictures that are printed large; of more the small ones are. */
const LARGE_PICTURES = 24;

/** What was made, over time, and the record of one part. */
export function createReviewService({ book, runs, plans, instruments, photos, write }: ReviewParts) {
  /** Of the finest gauge that hung on the bag, around the fill. */
  async function readingsOf({ job, shop }: RunPlan, entries: readonly Entry[]): Promise<BagReading[]> {
    const state = runStateOf(entries);
    const span = fillSpanOf(infusionOf(state, laidOut(job)));
    const hung = hungAt(state.entries, 'bag');
    const [gauge] = (await instruments.list())
      .filter((one) => hung.has(one.id) && isGauge(one))
      .sort(byFineness);
    if (!gauge || !span) return [];
    const { starts, means } = await instruments.window(gauge.id, span.from, span.to, PLACES);
    return starts.map((at, n) => ({ at, pressure: absoluteOf(gauge, means[n]!, ambientOf(shop)) }));
  }

  return {
    list: (withRehearsals: boolean): Promise<BookLine[]> =>
      book.list(withRehearsals ? ['part', 'rehearsal'] : ['part']),
    openLessons: (): Promise<OpenLesson[]> => book.openLessons(),

    /** @throws ProblemError NOT_FOUND */
    async report(runId: string, paper: ReportPaper): Promise<{ name: string; data: Uint8Array }> {
      const run = await runs.find(runId);
      const [plan, entries] = [await plans.planOf(runId), await runs.entriesOf(runId)];
      const readings = await readingsOf(plan, entries);
      const report = reportOf({
        ...{ run, plan, entries, readings, width: widthOf(paper) },
        instruments: await instruments.list(),
      });
      const ids = report.sections.flatMap(({ blocks }) =>
        blocks.flatMap((block) => (block.kind === 'photos' ? block.photos.map(({ id }) => id) : [])),
      );
      const size = ids.length > LARGE_PICTURES ? 'small' : 'large';
      const files = ids.map((id) => [id, photos.fileOf(runId, id, size)] as const);
      const pictures = new Map(files.filter(([, path]) => existsSync(path)));
      const data = await write({ report, paper, pictures });
      return { name: `${report.title}.pdf`, data };
    },
  };
}
