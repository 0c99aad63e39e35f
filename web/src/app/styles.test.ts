import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, it } from 'vitest';

const root = fileURLToPath(new URL('..', import.meta.url));
const files = (ending: string) =>
  readdirSync(root, { recursive: true, encoding: 'utf8' })
    .filter((name) => name.endsWith(ending))
    .map((name) => join(root, name));
const imported = /^import (\w+) from '([^']+\.module\.css)';$/gm;

/** The classes of a module, without what it says of classes elsewhere. */
const definedIn = (file: string) =>
  new Set(
    [
      ...readFileSync(file, 'utf8')
        .replace(/\/\*[^]*?\*\//g, '')
        .replace(/:global\([^)]*\)/g, '')
        .matchAll(/\.([a-zA-Z][\w-]*)(?=[^{}]*\{)/g),
    ].map((match) => match[1]!),
  );

/** By module, what the screens take of it. */
function used(): Map<string, Set<string>> {
  const found = new Map<string, Set<string>>();
  for (const file of files('.tsx')) {
    const text = readFileSync(file, 'utf8');
    for (const [, name, path] of text.matchAll(imported)) {
      const taken = new RegExp(`\\b${name}(?:\\.(\\w+)|\\['([\\w-]+)'\\])`, 'g');
      const sheet = join(dirname(file), path!);
      const classes = found.get(sheet) ?? new Set();
      for (const match of text.matchAll(taken)) classes.add((match[1] ?? match[2])!);
      found.set(sheet, classes);
    }
  }
  return found;
}

it('what a screen takes of a module of styles is there, and nothing stands in one that no screen takes', () => {
  const taken = used();
  const sheets = files('.module.css');
  expect(sheets.length).toBeGreaterThan(30);
  const wrong = sheets.flatMap((sheet) => {
    const [defined, asked] = [definedIn(sheet), taken.get(sheet) ?? new Set<string>()];
    const name = relative(root, sheet);
    return [
      ...[...asked].filter((each) => !defined.has(each)).map((each) => `${name} has no ${each}`),
      ...[...defined].filter((each) => !asked.has(each)).map((each) => `${name}: nobody takes ${each}`),
    ];
  });
  expect(wrong).toEqual([]);
});
