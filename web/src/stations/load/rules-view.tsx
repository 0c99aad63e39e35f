import { Radio } from 'antd';
import { allowedBySchool, schoolBecause, schoolText, wattsText } from '@fairwatt/core';
import { FigureField, TextField } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import { Sheet } from '../../controls/sheet.tsx';
import styles from './rules-view.module.css';

const failsWhere = {
  'like-for-like': 'fails where the old one was undersized, or an upgrade is planned',
  'fixed-margin': 'gives small machines twice what they need, large ones too little',
  'half-load': 'dear, and the gain near half load is about a point or two',
  'card-advice': 'made for an unknown machine',
  'peaks-covered': 'needs the parts to be known',
} as const;

/** The sizing rules side by side: what each asks for here, why, and which of the shop's supplies it would allow. */
export function RulesView() {
  const { job, view, shop, act, locked, judging } = useDesk();
  const { sheet } = job;
  const edit = (changes: Partial<typeof sheet>) => act({ kind: 'edit-sheet', changes, basedOn: sheet.version });
  const asked = view.load.schools.flatMap((rating) => (rating.ratingWatts === null ? [] : [rating.ratingWatts]));
  const most = Math.max(...asked, view.load.planned.sustainedWatts, 1) * 1.08;
  return (
    <section aria-label="Sizing schools">
      <Sheet
        className={styles.rules ?? ''}
        rows={view.load.schools}
        rowKey={(rating) => rating.school}
        rowProps={(rating) => ({ 'data-school': rating.school })}
        columns={[
          {
            head: 'Rule',
            cell: (rating) => (
              <Radio
                className="tick"
                name="school"
                checked={sheet.school === rating.school}
                disabled={locked}
                onChange={() => edit({ school: rating.school })}
              >
                <span>
                  <strong>{schoolText[rating.school]}</strong>
                  {shop.settings.school === rating.school && <span className="quiet"> · the shop's</span>}
                  <span className="quiet" style={{ display: 'block', fontSize: 13 }}>
                    {failsWhere[rating.school]}
                  </span>
                </span>
              </Radio>
            ),
          },
          {
            head: 'Asks for',
            className: 'num',
            cell: (rating) => (rating.ratingWatts === null ? '–' : wattsText(rating.ratingWatts)),
          },
          {
            head: 'Why here',
            cell: (rating) => (
              <>
                <svg
                  viewBox="0 0 240 16"
                  style={{ width: '100%', maxWidth: 240, height: 16, display: 'block' }}
                  aria-hidden="true"
                >
                  <rect
                    x={0}
                    y={4}
                    width={(view.load.planned.sustainedWatts / most) * 240}
                    height={8}
                    style={{ fill: 'var(--track)' }}
                  />
                  {rating.ratingWatts !== null && (
                    <line
                      x1={(rating.ratingWatts / most) * 240}
                      x2={(rating.ratingWatts / most) * 240}
                      y1={0}
                      y2={16}
                      style={{ stroke: sheet.school === rating.school ? 'var(--action)' : 'var(--ink)' }}
                      strokeWidth={3}
                    />
                  )}
                </svg>
                <span className="quiet" style={{ fontSize: 13.5 }}>
                  {schoolBecause(rating)}
                </span>
              </>
            ),
          },
          {
            head: 'Allows',
            className: 'num',
            cell: (rating) =>
              judging.stopped || (judging.share !== null && view.candidates.length === 0)
                ? '…'
                : `${view.candidates.filter((candidate) => allowedBySchool(candidate, rating)).length} of ` +
                  `${view.candidates.length}`,
          },
        ]}
      />
      <p className="quiet" style={{ margin: '6px 0 14px' }}>
        The grey bar is the lasting load, the line what the rule asks for. “Allows” counts this shop's supplies that
        also fit the case and serve every inlet.
      </p>
      <div className="fields">
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
            sheet.school === shop.settings.school
              ? 'Note on the sizing'
              : `Why not ${schoolText[shop.settings.school].toLowerCase()}, as this shop does`
          }
          value={sheet.schoolNote}
          maxLength={300}
          disabled={locked}
          onChange={(schoolNote) => edit({ schoolNote })}
        />
      </div>
      {sheet.school !== shop.settings.school && sheet.schoolNote.trim() === '' && (
        <p className="caution" style={{ marginTop: 10 }}>
          <span>This job is sized by another rule than the shop's. Say why, for whoever opens it next.</span>
        </p>
      )}
    </section>
  );
}
