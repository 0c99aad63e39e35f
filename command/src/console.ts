import { createInterface } from 'node:readline/promises';

/** Asks on the console; null where nobody can answer. */
export async function asked(question: string): Promise<string | null> {
  if (!process.stdin.isTTY) return null;
  const prompt = createInterface({ input: process.stdin, output: process.stdout });
  const answer = await prompt.question(question);
  prompt.close();
  return answer.trim();
}
