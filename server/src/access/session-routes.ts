import { Router, type Request, type Response } from 'express';
import type pg from 'pg';
import { sessionSchema, sessionsSchema } from '@fairwatt/contract';
import { HttpProblem, parseInput } from '../problems.ts';
import { audit, whoAsks } from './gate.ts';
import { endSessionShown, readSessions } from './session-list.ts';

/** Where somebody is signed in, to look at and to end: one's own, and everybody's for an owner. */
export function sessionRoutes(pool: pg.Pool, now: () => string): Router {
  const router = Router();
  const whose = (request: Request): string | null => {
    const { id, role } = whoAsks(request);
    return role === 'owner' ? null : id;
  };
  const sessions = async (request: Request, response: Response) => {
    response.json(sessionsSchema.parse(await readSessions(pool, whose(request), request.sessionID)));
  };
  router.get('/', sessions);
  router.delete('/:id', async (request, response) => {
    const ended = await endSessionShown(
      pool,
      parseInput(sessionSchema.shape.id, request.params['id'], 'The session'),
      whose(request),
    );
    if (ended === null) throw new HttpProblem(404, 'no-such-session', 'This session is over already');
    await audit(pool, request, now(), 'sessions-ended', `1 of ${ended}`);
    await sessions(request, response);
  });
  return router;
}
