import { openWorld, type WorldAsked } from './world-work.ts';

let pass: ReturnType<typeof openWorld> | null = null;

onmessage = ({ data }: MessageEvent<WorldAsked>) => {
  if (data.kind === 'open') pass = openWorld(data);
  else if (pass) postMessage(pass(data));
};
