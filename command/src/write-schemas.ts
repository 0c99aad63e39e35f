import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { loadModel } from '@fairwatt/server';
import { accessPage } from './access-page.ts';
import { knowledgePage } from './knowledge-page.ts';
import { licencesPage } from './licences-page.ts';
import { root } from './paths.ts';
import { jsonSchemas } from './schemas.ts';

const directory = join(root, 'docs/schemas');
mkdirSync(directory, { recursive: true });
const { knowledge } = await loadModel();
writeFileSync(join(root, 'docs/access.md'), accessPage());
writeFileSync(join(root, 'docs/licences.md'), licencesPage());
writeFileSync(join(root, 'docs/knowledge.md'), knowledgePage(knowledge));
for (const [name, text] of jsonSchemas()) writeFileSync(join(directory, name), text);
