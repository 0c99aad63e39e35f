import escapeHtml from 'escape-html';
import type { ErrorRequestHandler } from 'express';
import { HttpProblem } from '../problems.ts';

/** What a person reads whose browser asked for a page where no shop is. */
const pageOf = (title: string): string => `<!doctype html>
<html lang="en">
  <head>
    <meta charset="utf-8" />
    <meta name="viewport" content="width=device-width" />
    <title>Fair Watt</title>
  </head>
  <body>
    <h1>Fair Watt</h1>
    <p>${escapeHtml(title)}.</p>
  </body>
</html>
`;

/** Answers browsers that want to show a page with one; programs get the problem itself, from whoever comes next. */
export const problemPage: ErrorRequestHandler = (error: unknown, request, response, next) => {
  const wantsPage = request.method === 'GET' && request.accepts(['json', 'html']) === 'html';
  if (!(error instanceof HttpProblem) || !wantsPage || response.headersSent) {
    next(error);
    return;
  }
  response
    .status(error.problem.status)
    .set({ 'content-security-policy': "default-src 'none'", 'x-content-type-options': 'nosniff' })
    .set('cache-control', 'no-store')
    .type('html')
    .send(pageOf(error.problem.title));
};
