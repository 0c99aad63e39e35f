import type { Said, Understood } from './said.ts';

/** A piece in few letters: `2 drive-35`, `+card-16-450 320W`, `-card`, `drive>`, `2 like card`, `memory-new ?kind`. */
export function short(said: Said): string {
  switch (said.kind) {
    case 'part': {
      const sign = said.change === 'added' ? '+' : '';
      const count = said.quantity === 1 ? '' : `${said.quantity} `;
      const watts = said.watts === null ? '' : ` ${said.watts}W`;
      const doubts = said.doubts.length === 0 ? '' : ` ?${said.doubts.join('?')}`;
      return `${sign}${count}${said.own ?? said.classId}${watts}${doubts}`;
    }
    case 'like':
      return `${said.change === 'added' ? '+' : ''}${said.quantity} like ${said.noun}`;
    case 'leaving':
      return [
        said.replaced ? '' : '-',
        said.quantity ?? '',
        said.noun,
        said.replaced ? '>' : '',
        said.ifThere === true ? '?' : '',
      ].join('');
    case 'case':
      return said.layout;
    case 'supply':
      return ['supply', said.model?.name ?? null, `${said.ratingWatts}W`, said.shape, said.grade, said.modular]
        .filter((word) => word !== null)
        .join(' ');
    case 'age':
      return `${said.of} ${said.years}y`;
    case 'ask':
      return `ask ${said.ask}`;
    case 'aside':
      return `(${said.why})`;
  }
}

/** Everything that was understood, and the words that were not, marked with `!`. */
export const shortOf = ({ said, unknown }: Understood, line: string): string =>
  [
    ...said.filter(({ kind }) => kind !== 'aside').map(short),
    ...unknown.map(({ from, to }) => `!${line.slice(from, to)}`),
  ].join(', ');
