import { Radio } from 'antd';
import { allowedBySchool, schoolBecause, schoolText, wattsText, type SchoolRating } from '@fairwatt/core';
import { FigureField, TextField } from '../../controls/fields.tsx';
import { useDesk, type JobDesk } from '../../job/job-context.ts';
import { Sheet, type SheetColumn } from '../../controls/sheet.tsx';
import { looks } from '../../looks/looks.ts';
import styles from './rules-view.module.css';

const failsWhere = {
  'like-for-like': 'fails where the old one was undersized, or an upgrade is planned',
  'fixed-margin': 'gives small machines twice what they need, large ones too little',
  'half-load': 'dear, and the gain near half load is about a point or two',
  'card-advice': 'made for an unknown machine',
  'peaks-covered': 'needs the parts to be known',
} as const;

/** The lasting load as a bar, what a rule asks for as a line across it. */
function RuleBar({ rating, most }: { readonly rating: SchoolRating; readonly most: number }) {
  const { job, view } = useDesk();
  const x = (watts: number) => (watts / most) * 240;
  return (
    <svg viewBox="0 0 240 16" className={styles.line} aria-hidden="true">
      <rect x={0} y={4} width={x(view.load.planned.sustainedWatts)} height={8} fill="var(--track)" />
      {rating.ratingWatts !== null && (
        <line
          x1={x(rating.ratingWatts)}
          x2={x(rating.ratingWatts)}
          y1={0}
          y2={16}
          stroke={job.sheet.school === rating.school ? 'var(--action)' : 'var(--ink)'}
          strokeWidth={3}
        />
      )}
    </svg>
  );
}

/** The rule by its name, to be picked for this job. */
function RulePick({ rating }: { readonly rating: SchoolRating }) {
  const { job, shop, act, locked } = useDesk();
  const { sheet } = job;
  return (
    <Radio
      className={looks.tick}
      name="school"
      checked={sheet.school === rating.school}
      disabled={locked}
      onChange={() => act({ kind: 'edit-sheet', changes: { school: rating.school }, basedOn: sheet.version })}
    >
      <span>
        <strong>{schoolText[rating.school]}</strong>
        {shop.settings.school === rating.school && <span className={looks.quiet}> · the shop's</span>}
        <span className={`${looks.quiet} ${styles.because}`}>{failsWhere[rating.school]}</span>
      </span>
    </Radio>
  );
}

function columnsOf({ view, judging }: JobDesk): readonly SheetColumn<SchoolRating>[] {
  const asked = view.load.schools.flatMap((rating) => (rating.ratingWatts === null ? [] : [rating.ratingWatts]));
  const most = Math.max(...asked, view.load.planned.sustainedWatts, 1) * 1.08;
  const notJudged = judging.stopped || (judging.share !== null && view.candidates.length === 0);
  const allowed = (rating: SchoolRating) =>
    view.candidates.filter((candidate) => allowedBySchool(candidate, rating)).length;
  return [
    { head: 'Rule', cell: (rating) => <RulePick rating={rating} /> },
    {
      head: 'Asks for',
      className: looks.num,
      cell: (rating) => (rating.ratingWatts === null ? '–' : wattsText(rating.ratingWatts)),
    },
    {
      head: 'Why here',
      cell: (rating) => (
        <>
          <RuleBar rating={rating} most={most} />
          <span className={`${looks.quiet} ${styles.beside}`}>{schoolBecause(rating)}</span>
        </>
      ),
    },
    {
      head: 'Allows',
      className: looks.num,
      cell: (rating) => (notJudged ? '…' : `${allowed(rating)} of ${view.candidates.length}`),
    },
  ];
}

/** What the rules need from a person: the card maker's word, and why this job goes by another rule than the shop. */
function RuleFields() {
  const { job, shop, act, locked } = useDesk();
  const { sheet } = job;
  const edit = (changes: Partial<typeof sheet>) => act({ kind: 'edit-sheet', changes, basedOn: sheet.version });
  const isOther = sheet.school !== shop.settings.school;
  return (
    <>
      <div className={looks.fields}>
        <FigureField
          label="Least rating that the card's maker prints"
          unit="W"
          optional
          least={1}
          most={5000}
          value={sheet.cardAdviceWatts}
          disabled={locked}
          onChange={(cardAdviceWatts) => edit({ cardAdviceWatts })}
        />
        <TextField
          label={
            isOther
              ? `Why not ${schoolText[shop.settings.school].toLowerCase()}, as this shop does`
              : 'Note on the sizing'
          }
          value={sheet.schoolNote}
          maxLength={300}
          disabled={locked}
          onChange={(schoolNote) => edit({ schoolNote })}
        />
      </div>
      {isOther && sheet.schoolNote.trim() === '' && (
        <p className={`${looks.caution} ${looks.below}`}>
          <span>This job is sized by another rule than the shop's. Say why, for whoever opens it next.</span>
        </p>
      )}
    </>
  );
}

/** The sizing rules side by side: what each asks for here, why, and which of the shop's supplies it would allow. */
export function RulesView() {
  const desk = useDesk();
  return (
    <section aria-label="Sizing schools">
      <Sheet
        className={styles.rules ?? ''}
        rows={desk.view.load.schools}
        rowKey={(rating) => rating.school}
        rowProps={(rating) => ({ 'data-school': rating.school })}
        columns={columnsOf(desk)}
      />
      <p className={`${looks.quiet} ${looks.justBelow} ${looks.above}`}>
        The grey bar is the lasting load, the line what the rule asks for. “Allows” counts this shop's supplies that
        also fit the case and serve every inlet.
      </p>
      <RuleFields />
    </section>
  );
}
