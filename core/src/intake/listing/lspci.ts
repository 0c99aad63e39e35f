import { nothingListed, type Listed } from './listed.ts';
import { addressOf, cardUse, plainName, sitsInProcessor, slotOf } from './plain.ts';

interface Device {
  readonly address: string;
  readonly classCode: string;
  readonly name: string;
}

const linePattern =
  /^((?:[0-9a-f]{4,8}:)?[0-9a-f]{2}:[0-9a-f]{2}\.[0-7])\s+((?:"[^"]*"|-\S+)(?:\s+(?:"[^"]*"|-\S+))*)\s*$/i;

/** One line of `lspci -mm -nn`: address, then class, maker and device in quotes. */
export function deviceOfLine(line: string): Device | null {
  const found = linePattern.exec(line);
  const address = addressOf(found?.[1]);
  if (found === null || address === null) return null;
  const [kind = '', , name = ''] = [...(found[2] ?? '').matchAll(/"([^"]*)"/g)].map((quoted) => quoted[1] ?? '');
  const classCode = /\[([0-9a-f]{4})\]\s*$/i.exec(kind)?.[1];
  return classCode === undefined
    ? null
    : { address, classCode: classCode.toLowerCase(), name: plainName(name.replace(/\s*\[[0-9a-f]{4}\]\s*$/i, '')) };
}

/** `lspci -mm -nn`: the devices of the bus with the codes of their classes. */
export function readLspci(lines: readonly string[]): Listed {
  const devices = lines.flatMap((line) => deviceOfLine(line) ?? []);
  return {
    ...nothingListed,
    cards: devices.flatMap(({ address, classCode, name }) => {
      const use = cardUse(classCode);
      return use === null ? [] : [{ name, address, use }];
    }),
    builtIn: devices.filter(({ classCode }) => sitsInProcessor(classCode)).map(({ address }) => slotOf(address)),
  };
}
