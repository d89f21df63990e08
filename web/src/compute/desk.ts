import type { UnwrapNestedRefs } from 'vue';
import type { LibraryStore } from '../data/library-store.ts';
import type { ShopStore } from '../data/shop-store.ts';
import type { JobSession } from '../session/job-session.ts';
import type { Scheduler } from './scheduler.ts';

/** What every computation about one open job starts from. */
export interface Desk {
  readonly session: UnwrapNestedRefs<JobSession>;
  readonly shop: ShopStore;
  readonly library: LibraryStore;
  readonly scheduler: Scheduler;
}
