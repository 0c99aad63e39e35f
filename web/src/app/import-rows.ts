import type { FetchBaseQueryError } from '@reduxjs/toolkit/query';
import { progressType, type ImportLine, type ImportMessage, type ImportReport } from '@fairwatt/contract';

type Result = { readonly data: ImportReport } | { readonly error: FetchBaseQueryError };

/** Each line of an answer as it comes. */
async function* linesOf(response: Response): AsyncGenerator<ImportLine> {
  if (response.body === null) return;
  let rest = '';
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    const lines = `${rest}${value}`.split('\n');
    rest = lines.pop() ?? '';
    for (const line of lines) yield JSON.parse(line) as ImportLine;
  }
}

/** Sends rows to the server and tells how far it is with them. */
export async function importRows(
  path: string,
  message: ImportMessage,
  onProgress: ((rows: number, of: number) => void) | undefined,
): Promise<Result> {
  try {
    const response = await fetch(`/api${path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', accept: progressType },
      body: JSON.stringify(message),
    });
    if (!response.ok) return { error: { status: response.status, data: (await response.json()) as unknown } };
    if (!(response.headers.get('content-type') ?? '').startsWith(progressType))
      return { data: (await response.json()) as ImportReport };
    for await (const line of linesOf(response)) {
      if ('report' in line) return { data: line.report };
      if ('problem' in line) return { error: { status: line.problem.status, data: line.problem } };
      onProgress?.(line.rows, line.of);
    }
    return { error: { status: 'FETCH_ERROR', error: 'the answer broke off' } };
  } catch (error) {
    return { error: { status: 'FETCH_ERROR', error: String(error) } };
  }
}
