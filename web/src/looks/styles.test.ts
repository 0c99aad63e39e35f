import { readdirSync, readFileSync } from 'node:fs';
import { basename, dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, it } from 'vitest';

const root = fileURLToPath(new URL('..', import.meta.url));
const files = (ending: RegExp) =>
  readdirSync(root, { recursive: true, encoding: 'utf8' })
    .filter((name) => ending.test(name) && !/\.test(-help)?\.tsx?$/.test(name))
    .map((name) => join(root, name));
const sheets = files(/\.module\.css$/);
const code = files(/\.tsx?$/).map((file) => ({ file, text: readFileSync(file, 'utf8') }));
const imported = /^import (\w+) from '([^']+\.module\.css)';$/gm;
const isShared = (sheet: string) => dirname(sheet) === join(root, 'looks');
const nameOf = (sheet: string) => basename(sheet, '.module.css');
const withoutComments = (sheet: string) => readFileSync(sheet, 'utf8').replace(/\/\*[^]*?\*\//g, '');

/** The classes of a module, without what it says of classes elsewhere. */
const definedIn = (sheet: string) =>
  new Set(
    [
      ...withoutComments(sheet)
        .replace(/:global\([^)]*\)/g, '')
        .matchAll(/\.([a-zA-Z][\w-]*)(?=[^{}]*\{)/g),
    ].map((match) => match[1]!),
  );

const takenBy = (name: string, text: string) =>
  [...text.matchAll(new RegExp(`\\b${name}(?:\\.(\\w+)|\\['([\\w-]+)'\\])`, 'g'))].map(
    (match) => (match[1] ?? match[2])!,
  );

/** By module, what the screens take of it. */
function used(): Map<string, Set<string>> {
  const found = new Map<string, Set<string>>();
  for (const { file, text } of code) {
    for (const [, name, path] of text.matchAll(imported)) {
      const sheet = join(dirname(file), path!);
      found.set(sheet, new Set([...(found.get(sheet) ?? []), ...takenBy(name!, text)]));
    }
  }
  return found;
}

it('what a screen takes of a module of styles is there, and nothing stands in one that no screen takes', () => {
  const taken = used();
  const own = sheets.filter((sheet) => !isShared(sheet));
  expect(own.length).toBeGreaterThan(30);
  const wrong = own.flatMap((sheet) => {
    const [defined, asked] = [definedIn(sheet), taken.get(sheet) ?? new Set<string>()];
    // A station's state is its class.
    if (nameOf(sheet) === 'station-node') ['settled', 'in-hand', 'needs-you'].forEach((state) => asked.add(state));
    const name = relative(root, sheet);
    return [
      ...[...asked].filter((each) => !defined.has(each)).map((each) => `${name} has no ${each}`),
      ...[...defined].filter((each) => !asked.has(each)).map((each) => `${name}: nobody takes ${each}`),
    ];
  });
  expect(wrong).toEqual([]);
});

it('of the looks that many wear each stands in one sheet, is named in the list of them, and is worn', () => {
  const shared = sheets.filter(isShared).flatMap((sheet) => [...definedIn(sheet)]);
  expect(shared.length).toBeGreaterThan(60);
  expect(new Set(shared).size).toBe(shared.length);
  const list = code.find(({ file }) => file.endsWith('looks/looks.ts'))!.text;
  const named = [...list.matchAll(/^type \w+ =([^;]+);|^export type Mark =([^;]+);/gm)].flatMap((match) =>
    [...(match[1] ?? match[2])!.matchAll(/'([\w-]+)'/g)].map((name) => name[1]!),
  );
  expect([...named].sort()).toEqual([...shared].sort());
  const marks = ['pass', 'fail', 'marginal', 'tight', 'cannot-tell'];
  const worn = new Set([...code.flatMap(({ text }) => takenBy('looks', text)), ...marks]);
  expect(named.filter((name) => !worn.has(name))).toEqual([]);
});

it('no two sheets bear one name, and what a sheet says of another sheet’s class is so', () => {
  const names = sheets.map(nameOf);
  expect(new Set(names).size).toBe(names.length);
  const called = new Set(sheets.flatMap((sheet) => [...definedIn(sheet)].map((each) => `${nameOf(sheet)}-${each}`)));
  const wrong = sheets.flatMap((sheet) =>
    [...withoutComments(sheet).matchAll(/:global\(([^)]*)\)/g)]
      .flatMap((match) => [...match[1]!.matchAll(/\.([\w-]+)/g)].map((each) => each[1]!))
      .filter((each) => !each.startsWith('ant-') && !called.has(each))
      .map((each) => `${relative(root, sheet)} speaks of ${each}`),
  );
  expect(wrong).toEqual([]);
});

it('no screen names a class that is not in a sheet', () => {
  const plain = code.flatMap(({ file, text }) =>
    [...text.matchAll(/className="([^"]*)"/g)].map((match) => `${relative(root, file)}: ${match[1]!}`),
  );
  expect(plain).toEqual([]);
});

it('the sheet for all pages holds reset, fonts, print and palette, and no class', () => {
  const text = readFileSync(join(root, 'app/style.css'), 'utf8');
  expect(text.split('\n').length).toBeLessThan(100);
  expect(text.match(/^\s*[^{}:]*\.[a-z][\w-]*[^;{}]*\{/gm) ?? []).toEqual([]);
});

/** What may be reckoned for one place: how large it is, and where it begins. */
const ofPlace = new Set([
  'width',
  'height',
  'minHeight',
  'left',
  'backgroundImage',
  'backgroundSize',
  'backgroundPosition',
]);

/** Whether every part of an element's style is of its place, and none is a plain figure or word. */
function isReckoned(style: string): boolean {
  const inner = /^\{([^]*)\}$/.exec(style.trim())?.[1];
  const parts = inner?.split(/,\s*(?=\w+(?::|\s*$)|\s*$)/).filter((part) => part.trim() !== '') ?? [''];
  return parts.every((part) => {
    const [name = '', value = name] = part.split(/:\s([^]*)/);
    return ofPlace.has(name.trim()) && !/^('[^']*'|[\d.]+)$/.test(value.trim());
  });
}

it('only what is reckoned for one drawing or bar stands as a style at its element', () => {
  expect(['{ width: `${share}%` }', '{ height }', '{ left: a + 1, width: b }'].filter(isReckoned)).toHaveLength(3);
  const plain = ['{ width: 220 }', "{ height: '100%' }", '{ marginTop: gap }', '{ width: wide, flex: 1 }', 'faint'];
  expect(plain.filter(isReckoned)).toEqual([]);
  const found = code.flatMap(({ file, text }) =>
    [...text.matchAll(/\sstyle=\{(\{[^]*?\}|[^{}]+)\}(?=[\s/>])/g)].map(([, style = '']) => ({ file, style })),
  );
  expect(code.filter(({ text }) => /\bstyle: \{/.test(text)).map(({ file }) => relative(root, file))).toEqual([]);
  expect(found.length).toBeGreaterThan(5);
  expect(
    found.filter(({ style }) => !isReckoned(style)).map(({ file, style }) => [relative(root, file), style]),
  ).toEqual([]);
});
