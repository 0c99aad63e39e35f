import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';
import { root } from './paths.ts';

export const programVersion = z
  .object({ version: z.string() })
  .parse(JSON.parse(readFileSync(join(root, 'package.json'), 'utf8'))).version;
