import express, { Router } from 'express';
import type pg from 'pg';
import { z } from 'zod';
import type { Model } from '@fairwatt/core';
import { id, jobFileFormat, jobFileSchema, jobFileVersion, presentJobFile, type JobFile } from '@fairwatt/contract';
import { signedInput } from '../access/index.ts';
import { HttpProblem, parseInput } from '../problems.ts';
import { jobText } from './job-text.ts';
import { pictureOf } from './photos.ts';
import { known } from './refusals.ts';
import { importJob } from './store.ts';

const querySchema = z.strictObject({ by: id, as: z.enum(['same', 'new']).default('same') });

/** A file of another kind or version is named as such before its fields are looked at. */
function checkFileHead(body: unknown): void {
  const head = z.object({ format: z.unknown(), version: z.unknown() }).safeParse(body);
  if (!head.success || head.data.format !== jobFileFormat)
    throw new HttpProblem(422, 'not-a-job-file', 'This is not a Fair Watt job file', {
      errors: [{ path: 'format', message: `must be ${jobFileFormat}` }],
    });
  if (head.data.version !== 1 && head.data.version !== jobFileVersion)
    throw new HttpProblem(
      422,
      'other-version',
      `This job file has version ${String(head.data.version).slice(0, 12)}; versions 1 to ` +
        `${jobFileVersion} are read here`,
      { errors: [{ path: 'version', message: `must be 1 to ${jobFileVersion}` }] },
    );
}

/** @throws HttpProblem where a picture is not of the format that its file says */
function checkPictures(file: JobFile): void {
  const errors = file.photos.flatMap((photo, index) =>
    pictureOf(Buffer.from(photo.data, 'base64'))?.format === photo.format
      ? []
      : [{ path: `photos.${index}.data`, message: `is no ${photo.format}` }],
  );
  if (errors.length > 0) throw new HttpProblem(422, 'invalid', 'The job file is not valid', { errors });
}

/** Takes job files in, of every version that was ever written. */
export function importRoutes(pool: pg.Pool, model: Model, now: () => string): Router {
  const router = Router();
  router.post('/import', express.json({ limit: '32mb' }), async (request, response) => {
    const query = await signedInput(pool, request, querySchema, request.query, 'The query');
    checkFileHead(request.body);
    const file = parseInput(jobFileSchema, presentJobFile(request.body), 'The job file');
    checkPictures(file);
    const outcome = known(await importJob(pool, model, file, query.by, query.as, now()));
    if (outcome.kind === 'code-taken')
      throw new HttpProblem(
        409,
        'code-taken',
        'A job with this code is already here; import it under a new code, or leave it',
        { errors: [{ path: 'job.code', message: 'already here' }] },
      );
    response.status(201).type('application/json').send(jobText(outcome.value));
  });
  return router;
}
