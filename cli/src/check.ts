import { assumptionsOf } from '@wick/plan/settle';
import { processOf } from '@wick/plan/processes/processes';
import { missingOf } from '@wick/plan/forecast/missing';
import { formatQuantity } from '@wick/core/units/format';
import { exitCodes, type Output } from './exit-codes.ts';
import { readJobAt, shopOf, type ShopOptions } from './read-job.ts';

export function check(file: string, options: ShopOptions, { out }: Output): number {
  const job = readJobAt(file);
  const missing = missingOf(job);
  out(
    `${job.name}: a ${job.process} job with ${job.laminate.plies.length} plies and ${job.lines.length} lines.`,
  );
  const { front } = processOf(job);
  if (!front.isDrawn) out(front.reason);
  for (const item of missing) out(`missing  ${item.message}`);
  for (const item of assumptionsOf(job, shopOf(options)))
    out(`assumed  ${item.label}: ${formatQuantity(item.value, item.quantity)} (${item.reason})`);
  return missing.length > 0 ? exitCodes.model.code : exitCodes.fine.code;
}
