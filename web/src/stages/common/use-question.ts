import { ref } from 'vue';
import { Cancelled } from '../../compute/scheduler.ts';

/** A question that somebody asks by a button: that it is being worked out, and why there is no answer. */
export function useQuestion() {
  const isAsking = ref(false);
  const message = ref<string | null>(null);
  let count = 0;

  /** @param work is given a number of its own, for its key: a fill that goes on is never asked the same twice */
  async function ask(work: (number: number) => Promise<void>): Promise<void> {
    isAsking.value = true;
    message.value = null;
    try {
      await work((count += 1));
    } catch (error) {
      if (!(error instanceof Cancelled)) message.value = (error as Error).message;
    } finally {
      isAsking.value = false;
    }
  }
  return { isAsking, message, ask };
}
