import express, { Router, type Request } from 'express';
import type pg from 'pg';
import { z } from 'zod';
import { id, mostPhotoBytes, mostPhotos, photoQuerySchema, photosSchema, uuid } from '@fairwatt/contract';
import { signedInput } from '../access/index.ts';
import { HttpProblem, parseInput } from '../problems.ts';
import { addPhoto, pictureOf, readPhotoData, readPhotos, removePhoto, type PhotoChange } from './photos.ts';
import { jobIdOf } from './read.ts';
import { codeOf, noJob } from './refusals.ts';

/** Pictures of a job: as bytes in, as bytes out, listed without them. */
export function photoRoutes(pool: pg.Pool, now: () => string): Router {
  const router = Router();
  async function jobOf(request: Request): Promise<number> {
    const code = codeOf(String(request.params['code']));
    const jobId = await jobIdOf(pool, code);
    if (jobId === null) throw noJob(code);
    return jobId;
  }
  const idOf = (request: Request) => parseInput(uuid, request.params['id'], 'The picture');
  const gone = () => new HttpProblem(404, 'no-such-photo', 'This job keeps no such picture');
  function check({ kind }: PhotoChange): void {
    switch (kind) {
      case 'closed':
        throw new HttpProblem(409, 'closed', 'The job is closed or put away. Reopen it to change its pictures.');
      case 'too-many':
        throw new HttpProblem(409, 'too-many', `A job keeps at most ${mostPhotos} pictures; take one out first`);
      case 'not-found':
        throw gone();
      case 'done':
        return;
    }
  }
  router.get('/:code/photos', async (request, response) => {
    response.json(photosSchema.parse(await readPhotos(pool, await jobOf(request))));
  });
  router.get('/:code/photos/:id', async (request, response) => {
    const found = await readPhotoData(pool, await jobOf(request), idOf(request));
    if (found === null) throw gone();
    response.set({ 'cache-control': 'private, max-age=31536000, immutable', 'content-disposition': 'inline' });
    response.type(found.format).send(found.data);
  });
  router.post('/:code/photos', express.raw({ type: () => true, limit: mostPhotoBytes }), async (request, response) => {
    const jobId = await jobOf(request);
    const query = await signedInput(pool, request, photoQuerySchema, request.query, 'The query');
    const bytes = Buffer.isBuffer(request.body) ? request.body : Buffer.alloc(0);
    const picture = pictureOf(bytes);
    if (picture === null)
      throw new HttpProblem(422, 'no-picture', 'This is no picture that can be kept; JPEG, PNG and WebP are', {
        errors: [{ path: 'body', message: 'no JPEG, PNG or WebP' }],
      });
    check(
      await addPhoto(
        pool,
        jobId,
        {
          id: query.id,
          caption: query.caption,
          cableId: query.cableId ?? null,
          leadId: query.leadId ?? null,
          by: query.by,
          at: now(),
          ...picture,
        },
        bytes,
      ),
    );
    response.status(201).json(photosSchema.parse(await readPhotos(pool, jobId)));
  });
  router.delete('/:code/photos/:id', async (request, response) => {
    const jobId = await jobOf(request);
    const { by } = await signedInput(pool, request, z.strictObject({ by: id }), request.query, 'The query');
    check(await removePhoto(pool, jobId, by, idOf(request), now()));
    response.json(photosSchema.parse(await readPhotos(pool, jobId)));
  });
  return router;
}
