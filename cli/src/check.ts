import { formatQuantity } from '@wick/core/units/format';
import { assumptionsOf, missingOf } from '@wick/contract/forecast-input';
import { exitCodes, type Output } from './exit-codes.ts';
import { readJobAt, shopOf, type ShopOptions } from './read-job.ts';

export function check(file: string, options: ShopOptions, { out }: Output): number {
  const job = readJobAt(file);
  const missing = missingOf(job);
  out(
    `${job.name}: a ${job.process} job with ${job.laminate.plies.length} plies and ${job.lines.length} lines.`,
  );
  for (const item of missing) out(`missing  ${item.message}`);
  for (const item of assumptionsOf(job, shopOf(options)))
    out(`assumed  ${item.label}: ${formatQuantity(item.value, item.quantity)} (${item.reason})`);
  return missing.length > 0 ? exitCodes.model.code : exitCodes.fine.code;
}
