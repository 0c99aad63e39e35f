import { useState, type ReactNode } from 'react';
import { Button } from 'antd';
import { useSearchParams } from 'react-router';
import {
  criteria,
  criterionText,
  fitReasonText,
  moneyText,
  nothingFits,
  remedyText,
  schoolText,
  standingSentence,
  type CandidateRow,
} from '@fairwatt/core';
import { Empty } from '../../controls/empty.tsx';
import { Primary } from '../../controls/fields.tsx';
import { Waiting } from '../../controls/waiting.tsx';
import { useDesk } from '../../job/job-context.ts';
import { AskedView } from './asked-view.tsx';
import { classMark, classWord } from './candidate-words.ts';
import { CompareView } from './compare-view.tsx';
import { PickedSide } from './picked-side.tsx';
import { TradeOffView } from './trade-off-view.tsx';
import { Choice } from '../../controls/choice.tsx';
import styles from './replacement.module.css';

const ways = [
  ['list', 'Candidates'],
  ['compare', 'Compare'],
  ['trade', 'Trade-off'],
  ['asked', 'What is asked'],
] as const;
const mostCompared = 4;

/** The shop's supplies for this machine, best first, each that falls with its reasons; and keeping what is there. */
export default function Replacement() {
  const desk = useDesk();
  const { job, view, shop, knowledge, judging, judgingFailed, question, inletLabel, partName, goTo, act, locked } =
    desk;
  const [params, setParams] = useSearchParams();
  const way = ways.find(([value]) => value === params.get('way'))?.[0] ?? 'list';
  const [picked, setPicked] = useState<string | null>(job.choice?.modelId ?? null);
  const [why, setWhy] = useState<string | null>(null);
  const [marked, setMarked] = useState<readonly string[]>([]);
  if (question === null)
    return (
      <div className="station">
        <div className="work">
          <Empty title="The machine's parts are missing">
            A supply is chosen for a machine: enter its parts at Intake.
          </Empty>
        </div>
        <aside className="side">
          <Primary onClick={() => goTo('intake')}>Enter the parts at Intake</Primary>
        </aside>
      </div>
    );
  const { candidates, standing } = view;
  const shown = candidates.find((candidate) => candidate.model.id === picked) ?? candidates[0];
  if (shown === undefined)
    return (
      <div className="station">
        <div className="work">
          {judging !== null ? (
            <Waiting>Judging {shop.supplies.length} supplies …</Waiting>
          ) : (
            <Empty title={judgingFailed ? 'The supplies could not be judged' : 'No supplies in this shop'}>
              {judgingFailed ? 'Reload the page; nothing is lost.' : 'Enter or import some under Supplies.'}
            </Empty>
          )}
        </div>
        <aside className="side" />
      </div>
    );
  const afterKeeping = job.parts.some(({ change }) => change !== 'stays') ? 'cables' : 'hand-over';
  function keep(reason: string): void {
    // Enough is said only where readings at work say so too.
    const usual = standing.word === 'enough' ? 'It carries the plan and measures well.' : 'It carries the plan.';
    const said = reason.trim() === '' ? usual : reason.trim();
    const choice = { kind: 'keep', modelId: null, reason: said, known: [] } as const;
    if (act({ kind: 'set-choice', choice, basedOn: job.choice?.version ?? 0 }) === null) goTo(afterKeeping);
  }
  const count = (name: CandidateRow['class']) => candidates.filter((candidate) => candidate.class === name).length;
  const compared = marked.flatMap((id) => candidates.find((candidate) => candidate.model.id === id) ?? []);
  const nothing = nothingFits(candidates);
  const supplyName = (id: string) => shop.supplies.find((model) => model.id === id)?.name ?? id;
  const toggle = (id: string) =>
    setMarked((list) =>
      list.includes(id) ? list.filter((other) => other !== id) : list.length < mostCompared ? [...list, id] : list,
    );
  const onKey = (event: React.KeyboardEvent, candidate: CandidateRow) => {
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (step !== 0) {
      const next = candidates[candidates.indexOf(candidate) + step];
      if (next === undefined) return;
      event.preventDefault();
      setPicked(next.model.id);
      document.querySelector<HTMLElement>(`[data-candidate="${next.model.id}"]`)?.focus();
    } else if (event.key === 'w') {
      event.preventDefault();
      setWhy(why === candidate.model.id ? null : candidate.model.id);
    } else if (event.key === 'c') {
      event.preventDefault();
      toggle(candidate.model.id);
    }
  };
  const remediesOf = (candidate: CandidateRow) =>
    candidate.remedies.map((remedy) => remedyText(remedy, inletLabel, partName)).join(' and ');
  const remark = (candidate: CandidateRow) => {
    if (candidate.fits)
      return [
        candidate.model.onShelf > 0 ? `${candidate.model.onShelf} on the shelf` : 'to order',
        ...(candidate.openOptional.length > 0 ? ['an optional inlet stays open'] : []),
        ...(candidate.beatenBy === null ? [] : ['beaten in everything']),
        ...(candidate.warnings.length > 0 ? ['large for this'] : []),
      ].join(', ');
    if (candidate.class === 'almost') return `with ${remediesOf(candidate)}`;
    return (
      fitReasonText(candidate.reasons[0]!, inletLabel) +
      (candidate.reasons.length > 1 ? ` (+${candidate.reasons.length - 1})` : '')
    );
  };
  const row = (candidate: CandidateRow) => (
    <div key={candidate.model.id}>
      <Button
        type="text"
        className={`candidate ${candidate.class}`}
        role="option"
        aria-selected={candidate === shown}
        data-candidate={candidate.model.id}
        data-class={candidate.class}
        tabIndex={candidate === shown ? 0 : -1}
        onClick={() => setPicked(candidate.model.id)}
        onKeyDown={(event) => onKey(event, candidate)}
      >
        <span className={`verdict ${classMark[candidate.class]}`} aria-label={classWord[candidate.class]} />
        <span className="name">
          {candidate.model.name}
          {marked.includes(candidate.model.id) && <span className="marked"> compared</span>}
        </span>
        <span className="fig">{candidate.model.label.ratingWatts} W</span>
        <span>{candidate.model.label.shape}</span>
        <span className="fig nowrap price">
          {moneyText(candidate.model.price.minor, candidate.model.price.currency)}
        </span>
        <span className="points" aria-label={`${Math.round(candidate.points)} points`}>
          {candidate.fits && (
            <>
              <span className="bar" style={{ width: `${candidate.points * 0.5}px` }} />
              <span className="fig">{Math.round(candidate.points)}</span>
            </>
          )}
        </span>
        <span className="quiet remark">{remark(candidate)}</span>
      </Button>
      {why === candidate.model.id && (
        <ul className="why" data-why={candidate.model.id}>
          {candidate.reasons.length === 0 ? (
            <li>Nothing speaks against it.</li>
          ) : (
            candidate.reasons.map((reason, index) => <li key={index}>{fitReasonText(reason, inletLabel)}</li>)
          )}
          {candidate.cardReduction !== null && (
            <li>A card that draws {Math.ceil(candidate.cardReduction)} W less would let it fit.</li>
          )}
        </ul>
      )}
    </div>
  );
  const heads: Readonly<Record<CandidateRow['class'], string>> = {
    fits: '',
    almost: 'These almost fit, and what it takes',
    falls: 'These fall, and why',
  };
  return (
    <div className="station">
      <div className="work">
        <div className="load-head">
          <Choice
            label="Way of choosing"
            value={way}
            options={ways.map(([value, name]) => ({
              value: value,
              label: (
                <>
                  {name}
                  {value === 'compare' && marked.length > 0 ? ` (${marked.length})` : ''}
                </>
              ),
            }))}
            onPick={(value) => setParams(value === 'list' ? {} : { way: value }, { replace: true })}
          />
          <span>
            <strong data-fitting>{count('fits')} fit</strong>, {count('almost')} almost, {count('falls')} fall
            {judging !== null ? (
              <span className="quiet" role="status">
                {' '}
                · judging again{judging > 0 ? ` ${Math.round(judging * 100)} %` : ''}
              </span>
            ) : null}
          </span>
        </div>
        {way === 'list' && (
          <>
            <p className="quiet" style={{ marginBottom: 8 }}>
              By {schoolText[job.sheet.school].toLowerCase()}. Points by the shop's weights:{' '}
              {criteria
                .filter((name) => shop.settings.choosing.weights[name] > 0)
                .map((name) => `${criterionText[name]} ${shop.settings.choosing.weights[name]}`)
                .join(', ')}
              . <kbd>w</kbd> why not, <kbd>c</kbd> compare.
            </p>
            {nothing !== null && (
              <section className="next-check" aria-label="Nothing fits">
                <h2>Nothing in this shop fits</h2>
                <p style={{ marginTop: 6 }}>
                  Nearest:{' '}
                  {nothing.nearest
                    .map(
                      (candidate) =>
                        `${candidate.model.name} (` +
                        (candidate.class === 'almost'
                          ? remediesOf(candidate)
                          : fitReasonText(candidate.reasons[0]!, inletLabel)) +
                        ')',
                    )
                    .join('; ')}
                  .
                </p>
                {nothing.smallerCard !== null && (
                  <p style={{ marginTop: 4 }}>
                    The least change: a card that draws {nothing.smallerCard.watts} W less, then{' '}
                    {supplyName(nothing.smallerCard.modelId)} fits.
                  </p>
                )}
              </section>
            )}
            <div className="candidates" role="listbox" aria-label="Supplies">
              {(['fits', 'almost', 'falls'] as const).map((name) =>
                count(name) === 0 ? null : (
                  <div key={name} role="group" aria-label={classWord[name]}>
                    {heads[name] !== '' && (
                      <div className="label" style={{ padding: '12px 6px 5px' }}>
                        {heads[name]}
                      </div>
                    )}
                    {candidates
                      .filter((candidate) => candidate.class === name)
                      .slice(0, 200)
                      .map(row)}
                  </div>
                ),
              )}
            </div>
            {candidates.length > 200 && <p className="quiet">Of each kind the first 200 are listed.</p>}
          </>
        )}
        {way === 'compare' && (
          <CompareView
            candidates={compared.length > 0 ? compared : candidates.slice(0, 3)}
            chosen={compared.length > 0}
            onDrop={(id) => toggle(id)}
          />
        )}
        {way === 'trade' && (
          <TradeOffView
            candidates={candidates.filter((candidate) => candidate.fits)}
            shown={shown}
            onPick={setPicked}
          />
        )}
        {way === 'asked' && <AskedView />}
      </div>
      <aside className="side" aria-label="The supply picked">
        {standing.word === 'enough' && job.choice === null && (
          <PresentStays verdict="The present supply can stay" said={standingSentence(standing, knowledge)}>
            <Primary disabled={locked} onClick={() => keep('')}>
              Keep the present supply
            </Primary>
          </PresentStays>
        )}
        {job.choice?.kind === 'keep' && (
          <PresentStays verdict="The present supply is kept" said={job.choice.reason}>
            <Primary onClick={() => goTo(afterKeeping)}>
              {afterKeeping === 'cables' ? 'Its cables for the upgrade' : 'Hand over'}
            </Primary>
          </PresentStays>
        )}
        <PickedSide
          key={shown.model.id}
          candidate={shown}
          best={candidates[0] === shown}
          primary={job.choice === null ? standing.word !== 'enough' : job.choice.kind === 'replace'}
          onKeep={keep}
        />
      </aside>
    </div>
  );
}

/** That what is there is good enough, said as gladly as a choice, with what comes next. */
function PresentStays({
  verdict,
  said,
  children,
}: {
  readonly verdict: string;
  readonly said: string;
  readonly children: ReactNode;
}) {
  return (
    <section aria-label={verdict} className={styles.stays ?? ''}>
      <p className={`verdict pass ${styles.verdict ?? ''}`}>{verdict}</p>
      <p>{said}</p>
      {children}
    </section>
  );
}
