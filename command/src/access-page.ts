import {
  actPermissions,
  endpoints,
  permissions,
  roleMay,
  roles,
  roleText,
  standings,
  type Permission,
} from '@fairwatt/contract';

const kinds = Object.keys(permissions) as Permission[];
const row = (cells: readonly string[]) => `| ${cells.join(' | ')} |`;

/** Who may do what, as a page in Markdown: made from the matrix that server and screens use. */
export function accessPage(): string {
  return [
    '# Who may do what',
    '',
    'Made from `contract/src/access.ts` by `npm run formats`; change that, not this page. The ' +
      'server answers no endpoint that is not in it, and `tests/access.test.ts` tries every ' +
      'cell.',
    '',
    ...standings.map((standing) => `- **${roleText[standing].name}**: ${roleText[standing].may}.`),
    '',
    '## Kinds of doing',
    '',
    row(['kind', 'what', ...roles.map((role) => roleText[role].name.toLowerCase())]),
    row(['---', '---', ...roles.map(() => ':-:')]),
    ...kinds.map((kind) =>
      row([`\`${kind}\``, permissions[kind].what, ...roles.map((role) => (roleMay(role, kind) ? 'yes' : '·'))]),
    ),
    '',
    '## Acts on a job',
    '',
    ...kinds.flatMap((kind) => {
      const acts = Object.entries(actPermissions).flatMap(([act, needs]) => (needs === kind ? [`\`${act}\``] : []));
      return acts.length === 0 ? [] : [`- \`${kind}\`: ${acts.join(', ')}.`];
    }),
    '',
    '## Endpoints',
    '',
    '`anyone` needs no sign-in: health, and what the way in itself needs. What stands under ' +
      '“told” is written into the audit when it was done.',
    '',
    row(['endpoint under /api', 'needs', 'told']),
    row(['---', '---', '---']),
    ...endpoints.map(({ method, path, needs, told }) =>
      row([`\`${method} ${path}\``, `\`${needs}\``, told === undefined ? '' : `\`${told}\``]),
    ),
    '',
  ].join('\n');
}
