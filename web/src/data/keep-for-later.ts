/** Put there by the build: the files that the pages of a job consist of. */
const LIST = '/kept.json';

type Get = (url: string) => Promise<Response>;
const atLeisure: Get = (url) => fetch(url, { priority: 'low' });

/**
 * Fetches what the pages of a job consist of, one file after the other and without running it, into what the browser keeps: from then on
 * work goes on without the server. What a device hardly uses is fetched when it is shown.
 */
export function createKeeper(get: Get = atLeisure) {
  let isKept = false;
  const whole = async (url: string) => {
    const answer = await get(url);
    if (!answer.ok) throw new Error(`${url} was answered ${answer.status}`);
    return answer;
  };
  return async function keepForLater(): Promise<void> {
    if (isKept) return;
    isKept = true;
    try {
      const urls = (await (await whole(LIST)).json()) as string[];
      for (const url of urls) await (await whole(url)).arrayBuffer();
    } catch {
      // The server does not answer, or the pages are being written: another time.
      isKept = false;
    }
  };
}

export const keepForLater = createKeeper();
