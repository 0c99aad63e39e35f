import { useState } from 'react';
import { Button } from 'antd';
import {
  checkAtPlug,
  checkWorth,
  hazardText,
  mainInletOf,
  needText,
  partsAt,
  percentText,
  tallyText,
  trustIn,
  type Instrument,
  type NextCheck,
} from '@fairwatt/core';
import { Keys } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import { CheckDrawing, isSmallDrawing } from './check-drawing.tsx';
import { savedText } from './saved-text.ts';
import styles from './check-card.module.css';

/** What a check takes, and what it saves. */
function Costs({ next }: { readonly next: NextCheck }) {
  const saved = savedText(next);
  return (
    <dl className={looks.factsList}>
      <div>
        <dt>takes</dt>
        <dd>{next.minutes} min</dd>
      </div>
      <div>
        <dt>needs</dt>
        <dd>{next.needs.length === 0 ? 'nothing' : next.needs.map((need) => needText[need]).join(', ')}</dd>
      </div>
      <div>
        <dt>hazard</dt>
        <dd>{hazardText[next.hazard]}</dd>
      </div>
      <div>
        <dt>{saved === null ? 'saves' : 'saves about'}</dt>
        <dd>{saved ?? 'no time; it may tell more'}</dd>
      </div>
    </dl>
  );
}

/** The tester that is in the hand, with how often it passed bad supplies here. */
function WhichTester({
  testers,
  checkId,
  tester,
  onPick,
}: {
  readonly testers: readonly Instrument[];
  readonly checkId: string;
  readonly tester: string | null;
  readonly onPick: (instrumentId: string) => void;
}) {
  const { knowledge, record } = useDesk();
  const passed =
    tester === null
      ? undefined
      : trustIn(knowledge, record).find((trust) => trust.checkId === checkId && trust.instrumentId === tester)
          ?.passedBad;
  return (
    <div className={styles.which} role="group" aria-label="Which tester">
      <span className={looks.quiet}>Which tester?</span>
      {testers.map((item) => (
        <Button key={item.id} aria-pressed={tester === item.id} onClick={() => onPick(item.id)}>
          {item.name}
        </Button>
      ))}
      {passed !== undefined && passed.of > 0 && (
        <span className={looks.quiet}>Here it passed {tallyText(passed)} of bad supplies.</span>
      )}
    </div>
  );
}

/** A check with how to do it, its caution, and its outcomes as keys. */
export function CheckCard({
  next,
  onAnswer,
}: {
  readonly next: NextCheck;
  readonly onAnswer: (outcomeId: string, instrumentId: string | null) => void;
}) {
  const { knowledge, locked, shop, job } = useDesk();
  const testers = shop.instruments.filter((instrument) => instrument.kind === 'tester');
  const lastUsed =
    job.outcomes.findLast((outcome) => testers.some((tester) => tester.id === outcome.instrumentId))?.instrumentId ??
    null;
  const [tester, setTester] = useState<string | null>(
    lastUsed ?? (testers.length === 1 ? (testers[0]?.id ?? null) : null),
  );
  const check = knowledge.checks.find((item) => item.id === next.checkId);
  if (check === undefined) return null;
  const asksTester = check.instrument === 'tester' && testers.length > 0;
  const waits = asksTester && tester === null;
  const { steps, drawing, ownPlug } = checkAtPlug(check, mainInletOf(partsAt(job.parts, 'present')));
  const small = drawing !== undefined && isSmallDrawing(drawing);
  return (
    <section className={looks.nextCheck} aria-label="Next check" data-check={check.id}>
      <span className={looks.label}>Next check</span>
      <div className={looks.top}>
        <div>
          <h2>{check.title}</h2>
          <p className={looks.justBelow}>{checkWorth(knowledge, next)}</p>
          <ol>
            {steps.map((step) => (
              <li key={step}>{step}</li>
            ))}
          </ol>
          {check.caution !== undefined && <p className={looks.caution}>{check.caution}</p>}
          {ownPlug && (
            <p className={looks.caution}>
              This machine has a maker's own main plug: its pins are others. Nothing is bridged or measured there by
              guess.
            </p>
          )}
        </div>
        <div>
          <Costs next={next} />
          {small && <CheckDrawing drawing={drawing} />}
        </div>
      </div>
      {drawing !== undefined && !small && <CheckDrawing drawing={drawing} />}
      {asksTester && <WhichTester testers={testers} checkId={check.id} tester={tester} onPick={setTester} />}
      <div>
        <Keys
          label="What came out"
          disabled={locked || waits}
          options={[
            ...check.outcomes.map((outcome, index) => ({
              value: outcome.id,
              label: outcome.label,
              hint:
                outcome.hint ??
                `${percentText(next.previews.find((preview) => preview.outcomeId === outcome.id)?.probability ?? 0)} ` +
                  'likely',
              digit: index + 1,
            })),
            { value: 'unknown', label: 'Cannot tell', hint: 'carries no weight', digit: 0 },
          ]}
          onPick={(outcomeId) => onAnswer(outcomeId, asksTester ? tester : null)}
        />
      </div>
    </section>
  );
}
