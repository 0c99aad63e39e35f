import type pg from 'pg';

/**
 * Fills a shop with closed jobs, past everything but the database: each with a title, a client, a telephone number and
 * words drawn from small lists, so that a word is rare, common, or in every job. They are a minute apart, the newest
 * now.
 */
export async function makeManyJobs(db: Pick<pg.ClientBase, 'query'>, count: number): Promise<void> {
  const pick = (words: readonly string[], step: number) =>
    `(array[${words.map((word) => `'${word}'`).join(',')}])[1 + (n / ${step}) % ${words.length}]`;
  const kinds = ['Tower', 'Office desktop', 'Slim desktop', 'Workstation', 'Kiosk', 'Old tower'];
  const clients = [
    'Harbour office',
    'Tide laboratory',
    'Picture house',
    'School library',
    'Radio',
    'Print studio',
    'Chandlery',
  ];
  const words = [
    'cuts out under load',
    'does not start',
    'smells burnt',
    'turns on by itself',
    'rattles',
    'resets at night',
  ];
  await db.query(
    `with made as (
      insert into job (code, revision, created_at, updated_at, state, closed_by, closed_at, state_version,
        sheet_version, title, client, words, surroundings, upgrade, layout, shapes, school, watch, left_in_bag)
      select 'XX-' || lpad(n::text, 6, '0'), 1, at, at, 'closed', 'mara', at, 1, 1,
        ${pick(kinds, 1)} || ' ' || n, ${pick(clients, 3)} || ', 01632 ' || lpad(n::text, 6, '0'),
        'It ' || ${pick(words, 7)},
        '', '', 'tower', '{ATX}', 'half-load', '', ''
      from (
        select n, date_trunc('milliseconds', now() - n * interval '1 minute') as at from generate_series(1, $1::int) n
      ) numbered
      returning id, code, title, client, words)
    insert into job_search (job_id, document, fields)
    select id,
      lower(concat_ws(' ', '', code, replace(code, '-', ''), '', title, '', client,
        '01632' || lpad(substring(title from '[0-9]+$'), 6, '0'), '', words)),
      json_build_array(json_build_object('field', 'title', 'text', title),
        json_build_object('field', 'client', 'text', client),
        json_build_object('field', 'words', 'text', words)) from made`,
    [count],
  );
  for (const table of ['job', 'job_search']) await db.query(`vacuum analyze ${table}`);
}
