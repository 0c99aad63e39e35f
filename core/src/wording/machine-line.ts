import type { LeftOpen, Said } from '../intake/index.ts';
import { partClass } from '../machine/index.ts';
import { wattsText } from './figures.ts';
import { layoutText } from './words.ts';

const doubtWords = {
  watts: 'watts not said: the class’s are taken',
  plugs: 'plugs not said: the usual ones are taken',
  count: 'not said how many: two are taken',
  kind: 'not said of which kind: the one that draws more is taken',
} as const;

const comingText = ({ change }: { readonly change: 'stays' | 'added' }): string =>
  change === 'added' ? ', comes with the upgrade' : '';

const askWords = {
  'card-plugs': 'which plugs? Say 8, 2x8, 3x8, 8+6, 16-pin or slot only',
  'board-plugs': 'no board is known with these plugs: add it below by its class',
  'supply-watts': 'how many watts does its label say?',
  instead: 'and what comes in its place?',
  'supply-comes': 'which supply comes is chosen at Replacement; here stands the one that is fitted',
  'new-or-there': 'is it there, or does it come? Write + before it where it comes, or leave out "new"',
  'no-part': 'this is no part; only parts are taken out here',
} as const;

/**
 * What was made of a piece of the machine's line.
 * @param came whether it leaves and is taken in as what the machine came with
 */
export function saidText(said: Said, came = false): string {
  switch (said.kind) {
    case 'part': {
      const count = said.quantity === 1 ? '' : `${said.quantity} × `;
      const watts = said.watts === null ? '' : `, ${wattsText(said.watts)}`;
      return `${count}${partClass(said.classId)?.name ?? said.classId}${watts}${comingText(said)}`;
    }
    case 'like':
      return `${said.quantity} × ${said.noun}, like what is there${comingText(said)}`;
    case 'leaving':
      if (said.ifThere === true) return `the ${said.noun} that is there, if there is one`;
      return [
        came && said.itself !== undefined ? `${saidText(said.itself)}, as it came,` : said.noun,
        said.replaced ? 'replaced' : 'taken out',
      ].join(' ');
    case 'case':
      return layoutText[said.layout];
    case 'supply':
      return [
        said.model === null ? 'Supply' : `Supply ${said.model.name},`,
        wattsText(said.ratingWatts),
        said.shape,
        said.grade,
        said.modular === null ? null : modularText[said.modular],
      ]
        .filter((word) => word !== null)
        .join(' ');
    case 'age':
      return `${said.of === 'machine' ? 'Machine' : 'Supply'} ${said.years} years old`;
    case 'aside':
      return said.why === 'absent' ? 'is not there: nothing to take in' : 'stays as it is';
    case 'ask':
      return said.ask === 'quantity' ? `so many? Say a number from 1 to ${said.most}` : askWords[said.ask];
  }
}

const modularText = { fixed: 'fixed cables', semi: 'semi-modular', full: 'modular' } as const;

/** What was taken for granted in a piece; null where nothing was. */
export function saidDoubtText(said: Said, came = false): string | null {
  if (came && said.kind === 'leaving' && said.itself !== undefined) return saidDoubtText(said.itself);
  if (said.kind !== 'part' || said.doubts.length === 0) return null;
  return said.doubts.map((doubt) => doubtWords[doubt]).join('; ');
}

/** Why a piece was not taken in. */
export function leftOpenText({ said, why }: LeftOpen): string {
  switch (why) {
    case 'say-more':
      return saidText(said);
    case 'none-there':
      return said.kind === 'like' ? 'there is none that it could be like' : 'there is none in the machine';
    case 'which-one':
      return said.kind === 'like'
        ? 'there are several that differ: say of this one what it is'
        : 'there are several: set the one that goes in the list below';
  }
}
