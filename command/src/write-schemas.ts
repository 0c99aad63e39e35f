import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './paths.ts';
import { jsonSchemas } from './schemas.ts';

const directory = join(root, 'docs/schemas');
mkdirSync(directory, { recursive: true });
for (const [name, text] of jsonSchemas()) writeFileSync(join(directory, name), text);
