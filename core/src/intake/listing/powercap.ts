import { nothingListed, type Listed } from './listed.ts';

const linePattern = /^package-(\d{1,2}) long_term (\d{6,10})$/;
export const isPowercap = (line: string): boolean => linePattern.test(line.trim());

/** `package-0 long_term 125000000`: the lasting limit that the processor keeps, in millionths of a watt. */
export function readPowercap(lines: readonly string[]): Listed {
  const watts = lines.flatMap((line) => linePattern.exec(line.trim())?.[2] ?? []).map((text) => Number(text) / 1e6);
  const real = watts.filter((limit) => limit >= 5 && limit < 1000);
  return {
    ...nothingListed,
    limits: real.length === 0 ? [] : [{ of: 'processor', watts: Math.round(Math.max(...real)) }],
  };
}
