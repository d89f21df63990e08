import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';

/**
 * When a process began, as its system says: tells it from a later one that was given the same number.
 * @returns null where no such process runs; '' where the system does not say
 */
export function processMark(pid: number): string | null {
  if (!Number.isInteger(pid) || pid <= 0 || !isRunning(pid)) return null;
  if (process.platform === 'linux')
    try {
      // Field 22, counted behind the name, which may hold blanks. Source: proc(5).
      const [, fields] = readFileSync(`/proc/${pid}/stat`, 'utf8').split(/\)(?!.*\))/s);
      return `${readFileSync('/proc/sys/kernel/random/boot_id', 'utf8').trim()} ${fields!.trim().split(' ')[19]}`;
    } catch {
      return '';
    }
  const asked = spawnSync('ps', ['-o', 'lstart=', '-p', String(pid)], { encoding: 'utf8' });
  return asked.status === 0 ? asked.stdout.trim() : '';
}

function isRunning(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}
