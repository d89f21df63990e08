import { useSession } from '../../compute/use-desk.ts';
import type { MaterialKind, MaterialOf } from '@wick/contract/materials';
import { useLibraryStore } from '../../data/library-store.ts';

/** What can be chosen of a kind: the job's own copies first, then the library's others. */
export function useChoices() {
  const job = useSession();
  const library = useLibraryStore();
  return <K extends MaterialKind>(kind: K): MaterialOf<K>[] => {
    const own = job.laid.materials.filter((item): item is MaterialOf<K> => item.kind === kind);
    return [...own, ...library.ofKind(kind).filter((item) => !own.some((known) => known.id === item.id))];
  };
}
