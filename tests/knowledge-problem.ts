import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { BrokenKnowledge, loadModel, shippedKnowledge } from '@fairwatt/server';

/** What the loader says of the shipped knowledge file after it was spoiled. */
export async function knowledgeProblem(spoil: (text: string) => string): Promise<string> {
  const directory = await mkdtemp(join(tmpdir(), 'fairwatt-knowledge-'));
  try {
    const path = join(directory, 'knowledge.json');
    await writeFile(path, spoil(await readFile(shippedKnowledge, 'utf8')));
    await loadModel(path);
    return 'loaded';
  } catch (error) {
    if (error instanceof BrokenKnowledge) return error.message;
    throw error;
  } finally {
    await rm(directory, { recursive: true, force: true });
  }
}
