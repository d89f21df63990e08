/** Which run of a job this device looked at last: the one that opens with it. */
const keyOf = (jobId: string) => `wick run ${jobId}`;

export const lookedAt = {
  read: (jobId: string): string | null => localStorage.getItem(keyOf(jobId)),
  keep: (jobId: string, runId: string): void => localStorage.setItem(keyOf(jobId), runId),
};
