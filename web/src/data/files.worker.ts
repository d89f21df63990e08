import { runFileTask, type FileTask } from './file-tasks.ts';

onmessage = async ({ data }: MessageEvent<FileTask>) => postMessage(await runFileTask(data));
