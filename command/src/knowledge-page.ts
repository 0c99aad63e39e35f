import {
  aboutText,
  faultGroupText,
  faultGroups,
  doubleShare,
  groupDamping,
  partlySeen,
  hazardText,
  isFromFile,
  needText,
  othersWeightJobs,
  rightRepairFails,
  shippedPriorJobs,
  shippedWeightJobs,
  wrongRepairCures,
  poweringText,
  type Check,
  type CheckKind,
  type Danger,
  type Knowledge,
} from '@fairwatt/core';

const kindTitle: Record<CheckKind, string> = {
  told: 'Told',
  look: 'Look',
  do: 'Do',
  measure: 'Measure',
  computed: 'Computed',
  decide: 'Decide',
};
const percent = (value: number) => `${Number(value.toFixed(1))}`;

const cureName = (knowledge: Knowledge, cureId: string) =>
  knowledge.faults.find((fault) => fault.cure.id === cureId)?.cure.text.toLowerCase() ?? cureId;

function dangerSection(knowledge: Knowledge, danger: Danger): string {
  const signs = knowledge.checks.flatMap((check) =>
    check.outcomes
      .filter((outcome) => outcome.danger === danger.id)
      .map((outcome) => `“${outcome.label}” at ${check.title.toLowerCase()}`),
  );
  const nameOf = (id: string) => cureName(knowledge, id);
  return [
    `### ${danger.title}`,
    '',
    `\`${danger.id}\`: ${danger.why} ` +
      (signs.length === 0 ? 'Told by Measure and Cables.' : `Shown by ${signs.join(', ')}.`),
    '',
    ...danger.first.map((step, index) => `${index + 1}. ${step}`),
    '',
    ...(danger.ways.length === 0
      ? ['It is over when its cause is gone.']
      : danger.ways.map(({ label, never, leaves = [] }) =>
          never === undefined
            ? `- ${label}: the search goes on.`
            : `- ${label}: never again under power: ${never.map((item) => poweringText[item]).join('; ')}. ` +
              `Left: ${leaves.map(nameOf).join(', ') || 'nothing here'}.`,
        )),
    '',
  ].join('\n');
}

function checkSection(knowledge: Knowledge, check: Check): string {
  const nameOf = (id: string) => knowledge.faults.find((fault) => fault.id === id)?.name ?? id;
  const facts = [
    `${check.minutes} min`,
    `needs ${check.needs.length === 0 ? 'nothing' : check.needs.map((need) => needText[need]).join(', ')}`,
    `hazard ${hazardText[check.hazard]}`,
    `tells the same story as others marked \`${check.evidence}\``,
  ];
  if (check.after !== undefined) {
    const outcomes = check.afterOutcomes?.join(' or ');
    facts.push(`only after \`${check.after}\`${outcomes === undefined ? '' : ` came out ${outcomes}`}`);
  }
  if (check.about !== undefined) facts.push(aboutText[check.about]);
  if (check.powers !== undefined) facts.push(`powers ${poweringText[check.powers]}`);
  if (check.from !== undefined)
    facts.push(
      `answered by ${check.from === 'intake' ? 'Intake' : check.from === 'load' ? 'Load' : 'Measure'} by itself`,
    );
  const proves = check.outcomes.flatMap((outcome) =>
    outcome.cures === undefined
      ? []
      : [`“${outcome.label}” proves ${outcome.cures.map((id) => nameOf(id).toLowerCase()).join(', ')}.`],
  );
  const tries = check.outcomes.flatMap((outcome) =>
    outcome.tries === undefined
      ? []
      : [`“${outcome.label}” counts as tried: ${outcome.tries.map((id) => cureName(knowledge, id)).join(', ')}.`],
  );
  const looks = check.outcomes.flatMap(({ label, lookFirst }) =>
    lookFirst === undefined ? [] : [`With “${label}” \`${lookFirst}\` comes before anything is powered.`],
  );
  const notes = [...proves, ...tries, ...looks];
  return [
    `### ${check.title}`,
    '',
    `\`${check.id}\`: ${facts.join('; ')}.`,
    '',
    ...(check.caution === undefined ? [] : [`Caution: ${check.caution}`, '']),
    ...check.steps.map((step, index) => `${index + 1}. ${step}`),
    '',
    ...(notes.length === 0 ? [] : [notes.join(' '), '']),
    `| with this fault | ${check.outcomes.map((outcome) => outcome.label).join(' | ')} | why |`,
    `| --- |${' ---: |'.repeat(check.outcomes.length)} --- |`,
    ...check.rows.map(
      (row) =>
        `| ${row.faults === 'others' ? 'any other' : row.faults.map(nameOf).join('; ')} | ` +
        `${row.weights.map(percent).join(' | ')} | ${row.why} |`,
    ),
    '',
  ].join('\n');
}

/** The knowledge as a page for a technician to read and argue with, in Markdown. */
export function knowledgePage(knowledge: Knowledge): string {
  const total = knowledge.faults.reduce((sum, fault) => sum + fault.prior, 0);
  const kinds = [...new Set(knowledge.checks.filter(isFromFile).map((check) => check.kind))];
  return [
    '# What the search for the fault knows',
    '',
    `Release ${knowledge.release}. Made from \`core/knowledge/knowledge.json\` by \`npm run ` +
      `formats\`; change the file, not this page. ${knowledge.note}`,
    '',
    'How it is used: the chance of each fault is its share below times, for each check done, ' +
      'the figure in the row of that fault under what was seen; then all are made to sum to ' +
      '100.',
    'Checks that tell the same story are damped for each fault apart: of the outcomes that ' +
      `speak for it the strongest counts in full, the next by ${groupDamping}, then by ` +
      `${groupDamping ** 2}, and so among those against it. “Cannot tell” counts nothing.`,
    `Two faults at once are weighed with the single ones: ${Math.round(100 * doubleShare)} machines in 100 have two. ` +
      'What is told of such a machine is the one or the other; a cure ends the complaint only if it ends both, and ' +
      `where it ends one of them that is seen as better in ${Math.round(100 * partlySeen)} of 100 cases; anything ` +
      'else each moves by its own factor.',
    'A repair that was tried is evidence too: the right one changes nothing in ' +
      `${rightRepairFails} of 100 cases, a wrong one seems to cure in ${wrongRepairCures}.`,
    `The shop's closed jobs move the figures: a shipped row is worth ${shippedWeightJobs} ` +
      `jobs with that fault, the shares of the faults ${shippedPriorJobs} jobs, and one ` +
      `instrument starts from what the others showed, worth ${othersWeightJobs} jobs.`,
    '',
    '## Faults',
    '',
    ...faultGroups.flatMap((group) => {
      const faults = knowledge.faults.filter((fault) => fault.group === group);
      if (faults.length === 0) return [];
      return [
        `### ${faultGroupText[group].charAt(0).toUpperCase()}${faultGroupText[group].slice(1)}`,
        '',
        '| fault | of 100 jobs | cure | minutes | why |',
        '| --- | ---: | --- | ---: | --- |',
        ...faults.map(
          (fault) =>
            `| ${fault.name} | ${percent((100 * fault.prior) / total)} | ` +
            `${fault.cure.text}${fault.cure.part === true ? ' (buys a part)' : ''} | ` +
            `${fault.cure.minutes} | ` +
            `${fault.why}${fault.about === undefined ? '' : ` (${aboutText[fault.about]})`} |`,
        ),
        '',
      ];
    }),
    '## Dangers',
    '',
    'While one stands, nothing is offered that puts the lead in, the rocker on or the machine ' +
      'to work. It stands until it was noted as made safe after it was last seen.',
    '',
    ...knowledge.dangers.map((danger) => dangerSection(knowledge, danger)),
    ...kinds.flatMap((kind) => [
      `## ${kindTitle[kind]}`,
      '',
      ...knowledge.checks.filter((check) => check.kind === kind).map((check) => checkSection(knowledge, check)),
    ]),
  ].join('\n');
}
