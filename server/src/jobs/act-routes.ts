import express, { Router, type Response } from 'express';
import {
  actMessageSchema,
  actsDoneSchema,
  actsTogetherSchema,
  revisionHeader,
  secondMessageSchema,
  type ActMessage,
} from '@fairwatt/contract';
import { demandAct, demandActs, holdToPerson, secondPerson, type Secrets } from '../access/index.ts';
import { parseInput } from '../problems.ts';
import { actOnJob, type Acting, type ActsOutcome, type Sent } from './acting.ts';
import { contentHash } from './events.ts';
import { jobText } from './job-text.ts';
import { codeOf, noJob, stopped } from './refusals.ts';

type ActsDone = Extract<ActsOutcome, { readonly kind: 'done' }>;

/** Acts on a job: one, several together, one that a second person signs. */
export function actRoutes(acting: Acting, secrets: Secrets, now: () => string): Router {
  const router = Router();
  const body = express.json({ limit: '1mb' });
  /** Does acts. @throws HttpProblem 404 for no such job */
  async function done(code: string, sent: readonly [Sent, ...Sent[]]): Promise<ActsDone> {
    const outcome = await actOnJob(acting, code, sent, now());
    if (outcome.kind === 'no-job') throw noJob(code);
    return outcome;
  }
  /** Does an act and answers with the job, or with why not and how the job stands. */
  async function act(response: Response, code: string, message: ActMessage, hash: string): Promise<void> {
    const { value, revisions, stop } = await done(code, [{ message, hash }]);
    if (stop !== null) throw stopped(stop, value);
    response.set(revisionHeader, String(revisions[0])).type('application/json').send(jobText(value));
  }
  router.post('/:code/acts', body, async (request, response) => {
    const code = codeOf(request.params['code']);
    demandAct(request, request.body);
    const message = parseInput(actMessageSchema, request.body, 'The change');
    holdToPerson(request, message.by);
    await act(response, code, message, contentHash(request.body));
  });
  router.post('/:code/acts/together', body, async (request, response) => {
    const code = codeOf(request.params['code']);
    demandActs(request, request.body);
    const { messages } = parseInput(actsTogetherSchema, request.body, 'The changes');
    // The schema takes no empty list, and what was parsed has the places of what came.
    const came = (request.body as { messages: readonly unknown[] }).messages;
    const sent = messages.map((message, index) => ({ message, hash: contentHash(came[index]) })) as [Sent, ...Sent[]];
    holdToPerson(request, sent[0].message.by);
    const { value, revisions, stop } = await done(code, sent);
    const problem = stop === null ? null : stopped(stop, value).problem;
    response.json(actsDoneSchema.parse({ revisions, problem, job: value }));
  });
  router.post('/:code/acts/second', body, async (request, response) => {
    const code = codeOf(request.params['code']);
    const { name, secret, message } = parseInput(secondMessageSchema, request.body, 'The signature');
    holdToPerson(request, message.by);
    const second = await secondPerson(acting.pool, secrets, request, name, secret, now());
    const signed = { ...message, by: second };
    await act(response, code, signed, contentHash(signed));
  });
  return router;
}
