import type { Request, Response } from 'express';
import { progressType, type ImportReport } from '@fairwatt/contract';
import { HttpProblem } from '../problems.ts';

/**
 * Answers a long import. Whoever asks for it hears line by line how many rows were looked at, then the report or the
 * problem; anybody else gets the report alone.
 */
export async function answerWithProgress(
  request: Request,
  response: Response,
  work: (progress: (rows: number, of: number) => void) => Promise<ImportReport>,
): Promise<void> {
  if (request.get('accept') !== progressType) {
    response.json(await work(() => undefined));
    return;
  }
  const line = (value: unknown) => response.write(`${JSON.stringify(value)}\n`);
  response.type(progressType);
  try {
    line({ report: await work((rows, of) => line({ rows, of })) });
  } catch (error) {
    if (!(error instanceof HttpProblem)) throw error;
    line({ problem: error.problem });
  }
  response.end();
}
