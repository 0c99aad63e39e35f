import { useState, type KeyboardEvent } from 'react';
import { Button } from 'antd';
import {
  boundToBe,
  criteria,
  criterionText,
  fitReasonText,
  moneyText,
  nothingFits,
  remedyText,
  schoolText,
  type CandidateRow,
} from '@fairwatt/core';
import { useDesk } from '../../job/job-context.ts';
import { looks, verdictLook } from '../../looks/looks.ts';
import { classMark, classWord } from './candidate-words.ts';
import styles from './candidate-list.module.css';

/** Of each kind so many are listed. */
const mostListed = 200;
const heads: Readonly<Record<CandidateRow['class'], string>> = {
  fits: '',
  almost: 'These almost fit, and what it takes',
  falls: 'These fall, and why',
};

/** What would let a candidate fit, in words. */
function useRemedies(): (candidate: CandidateRow) => string {
  const { inletLabel, partName } = useDesk();
  return ({ remedies }) => remedies.map((remedy) => remedyText(remedy, inletLabel, partName)).join(' and ');
}

/** What is said of a candidate in its row: what it lacks, or why it falls. */
function useRemark(): (candidate: CandidateRow) => string {
  const { inletLabel } = useDesk();
  const remediesOf = useRemedies();
  return (candidate) => {
    const { model, reasons } = candidate;
    if (candidate.fits)
      return [
        model.onShelf > 0 ? `${model.onShelf} on the shelf` : 'to order',
        ...(candidate.openOptional.length > 0 ? ['an optional inlet stays open'] : []),
        ...(candidate.beatenBy === null ? [] : ['beaten in everything']),
        ...(candidate.warnings.length > 0 ? ['large for this'] : []),
      ].join(', ');
    if (candidate.class === 'almost') return `with ${remediesOf(candidate)}`;
    return (
      fitReasonText(boundToBe(reasons[0], 'reason'), inletLabel) +
      (reasons.length > 1 ? ` (+${reasons.length - 1})` : '')
    );
  };
}

/** The supplies, best first: those that fit, those that almost do with what it takes, and the rest with its reason. */
export function CandidateList({
  shown,
  marked,
  onPick,
  onMark,
}: {
  readonly shown: CandidateRow;
  /** Ids of those that are to be compared. */
  readonly marked: readonly string[];
  readonly onPick: (id: string) => void;
  readonly onMark: (id: string) => void;
}) {
  const { candidates } = useDesk().view;
  const [why, setWhy] = useState<string | null>(null);
  function onKey(event: KeyboardEvent, candidate: CandidateRow): void {
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (step === 0 && event.key !== 'w' && event.key !== 'c') return;
    const next = candidates[candidates.indexOf(candidate) + step];
    if (next === undefined) return;
    event.preventDefault();
    if (event.key === 'w') setWhy(why === candidate.model.id ? null : candidate.model.id);
    else if (event.key === 'c') onMark(candidate.model.id);
    else {
      onPick(next.model.id);
      document.querySelector<HTMLElement>(`[data-candidate="${next.model.id}"]`)?.focus();
    }
  }
  return (
    <>
      <ListHead />
      <NothingFits />
      <div className={styles.candidates} role="listbox" aria-label="Supplies">
        {(['fits', 'almost', 'falls'] as const).map((name) => {
          const ofKind = candidates.filter((candidate) => candidate.class === name);
          if (ofKind.length === 0) return null;
          return (
            <div key={name} role="group" aria-label={classWord[name]}>
              {heads[name] !== '' && <div className={`${looks.label} ${styles.group}`}>{heads[name]}</div>}
              {ofKind.slice(0, mostListed).map((candidate) => (
                <div key={candidate.model.id}>
                  <CandidateLine
                    candidate={candidate}
                    isShown={candidate === shown}
                    isMarked={marked.includes(candidate.model.id)}
                    onPick={() => onPick(candidate.model.id)}
                    onKey={(event) => onKey(event, candidate)}
                  />
                  {why === candidate.model.id && <WhyNot candidate={candidate} />}
                </div>
              ))}
            </div>
          );
        })}
      </div>
      {candidates.length > mostListed && <p className={looks.quiet}>Of each kind the first {mostListed} are listed.</p>}
    </>
  );
}

/** By which rule and which weights they stand in this order. */
function ListHead() {
  const { job, shop } = useDesk();
  const { weights } = shop.settings.choosing;
  return (
    <p className={`${looks.quiet} ${looks.above}`}>
      By {schoolText[job.sheet.school].toLowerCase()}. Points by the shop's weights:{' '}
      {criteria
        .filter((name) => weights[name] > 0)
        .map((name) => `${criterionText[name]} ${weights[name]}`)
        .join(', ')}
      . <kbd>w</kbd> why not, <kbd>c</kbd> compare.
    </p>
  );
}

function CandidateLine({
  candidate,
  isShown,
  isMarked,
  onPick,
  onKey,
}: {
  readonly candidate: CandidateRow;
  readonly isShown: boolean;
  readonly isMarked: boolean;
  readonly onPick: () => void;
  readonly onKey: (event: KeyboardEvent) => void;
}) {
  const { model, points } = candidate;
  const remark = useRemark();
  return (
    <Button
      type="text"
      className={`${styles.candidate} ${candidate.class === 'falls' ? styles.falls : ''}`}
      role="option"
      aria-selected={isShown}
      data-candidate={model.id}
      data-class={candidate.class}
      tabIndex={isShown ? 0 : -1}
      onClick={onPick}
      onKeyDown={onKey}
    >
      <span className={verdictLook(classMark[candidate.class])} aria-label={classWord[candidate.class]} />
      <span className={styles.name}>
        {model.name}
        {isMarked && <span className={styles.marked}> compared</span>}
      </span>
      <span className={looks.fig}>{model.label.ratingWatts} W</span>
      <span>{model.label.shape}</span>
      <span className={`${looks.fig} ${looks.nowrap} ${styles.price}`}>
        {moneyText(model.price.minor, model.price.currency)}
      </span>
      <span className={styles.points} aria-label={`${Math.round(points)} points`}>
        {candidate.fits && (
          <>
            <span className={styles.bar} style={{ width: `${points * 0.5}px` }} />
            <span className={looks.fig}>{Math.round(points)}</span>
          </>
        )}
      </span>
      <span className={`${looks.quiet} ${styles.remark}`}>{remark(candidate)}</span>
    </Button>
  );
}

/** Everything that speaks against a candidate. */
function WhyNot({ candidate: { model, reasons, cardReduction } }: { readonly candidate: CandidateRow }) {
  const { inletLabel } = useDesk();
  return (
    <ul className={styles.why} data-why={model.id}>
      {reasons.length === 0 ? (
        <li>Nothing speaks against it.</li>
      ) : (
        reasons.map((reason, index) => <li key={index}>{fitReasonText(reason, inletLabel)}</li>)
      )}
      {cardReduction !== null && <li>A card that draws {Math.ceil(cardReduction)} W less would let it fit.</li>}
    </ul>
  );
}

/** Where nothing fits: the nearest misses, and the least change of the machine. */
function NothingFits() {
  const { view, shop, inletLabel } = useDesk();
  const remediesOf = useRemedies();
  const nothing = nothingFits(view.candidates);
  if (nothing === null) return null;
  const { nearest, smallerCard } = nothing;
  const lacks = (candidate: CandidateRow) =>
    candidate.class === 'almost'
      ? remediesOf(candidate)
      : fitReasonText(boundToBe(candidate.reasons[0], 'reason'), inletLabel);
  return (
    <section className={looks.nextCheck} aria-label="Nothing fits">
      <h2>Nothing in this shop fits</h2>
      <p className={looks.justBelow}>
        Nearest: {nearest.map((candidate) => `${candidate.model.name} (${lacks(candidate)})`).join('; ')}.
      </p>
      {smallerCard !== null && (
        <p className={looks.justBelow}>
          The least change: a card that draws {smallerCard.watts} W less, then{' '}
          {shop.supplies.find((model) => model.id === smallerCard.modelId)?.name ?? smallerCard.modelId} fits.
        </p>
      )}
    </section>
  );
}
