/**
 * Sends a request and reads its answer within a time; rejects after that. The timer holds on to the request, so that
 * one that is lost on the way ends all the same.
 */
export async function within<T>(
  milliseconds: number,
  url: string,
  init: RequestInit,
  read: (response: Response) => Promise<T>,
): Promise<T> {
  const controller = new AbortController();
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<never>((_resolve, reject) => {
    timer = setTimeout(() => {
      controller.abort();
      reject(new Error(`no answer within ${milliseconds} ms`));
    }, milliseconds);
  });
  try {
    return await Promise.race([fetch(url, { ...init, signal: controller.signal }).then(read), late]);
  } finally {
    clearTimeout(timer);
  }
}
