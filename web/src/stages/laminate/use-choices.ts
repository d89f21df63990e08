import type { MaterialKind, MaterialOf } from '@wick/contract/materials';
import { useJobStore } from '../../state/job-store.ts';
import { useLibraryStore } from '../../state/library-store.ts';

/** What can be chosen of a kind: the job's own copies first, then the library's others. */
export function useChoices() {
  const job = useJobStore();
  const library = useLibraryStore();
  return <K extends MaterialKind>(kind: K): MaterialOf<K>[] => {
    const own = job.document!.materials.filter((item): item is MaterialOf<K> => item.kind === kind);
    return [...own, ...library.ofKind(kind).filter((item) => !own.some((known) => known.id === item.id))];
  };
}
