import { Button } from 'antd';
import {
  figureText,
  conditionText,
  forecastText,
  isRail,
  readingsOf,
  settlingInstruments,
  settlingReadings,
  subjectText,
  subjects,
  unitOf,
  unreadRailsText,
  verdictLevel,
  verdictReason,
  verdictText,
  voltsText,
  type Condition,
  type Phase,
  type Verdict,
} from '@fairwatt/core';
import { useDesk } from '../../job/job-context.ts';
import { looks, verdictLook } from '../../looks/looks.ts';

const order = (verdict: Verdict) =>
  subjects.indexOf(verdict.subject) * 3 + ['off-load', 'idle', 'work'].indexOf(verdict.condition);

/** What was measured in this phase, in the order in which it is read. */
export function useVerdicts(phase: Phase) {
  const { view } = useDesk();
  const result = phase === 'before' ? view.before : view.after;
  const verdicts = [...result.verdicts].sort((a, b) => order(a) - order(b));
  const first = (word: Verdict['word']) => verdicts.find((verdict) => verdict.word === word);
  return { result, verdicts, deciding: first('fail') ?? first('cannot-tell') ?? first('marginal') ?? null };
}

/** An error in volts, so that the smallest still shows a figure. */
const errorText = (volts: number) => (volts < 0.01 ? figureText(volts, 4) : voltsText(volts, 3));

/** Rails that show nothing are asked about: a machine that is off convicts nobody. */
function WasItStarted({ phase, condition }: { readonly phase: Phase; readonly condition: Condition }) {
  const { job, act, locked } = useDesk();
  const readings = readingsOf(job, phase).filter(
    (reading) => reading.condition === condition && isRail(reading.subject) && reading.subject !== '+5sb',
  );
  return (
    <div className={looks.rowActions} role="group" aria-label="Was the supply started?">
      <Button
        disabled={locked}
        onClick={() => readings.every((reading) => act({ kind: 'strike-reading', id: reading.id }) === null)}
      >
        It was off: strike them
      </Button>
      {phase === 'before' && (
        <Button
          disabled={locked}
          onClick={() =>
            act({
              kind: 'note-outcome',
              id: crypto.randomUUID(),
              checkId: 'm-offload',
              outcomeId: 'nothing',
              instrumentId: null,
            })
          }
        >
          Its start line was tied, nothing came
        </Button>
      )}
    </div>
  );
}

/** The verdict that decides, large, with its reason. */
function Deciding({ verdict, phase }: { readonly verdict: Verdict; readonly phase: Phase }) {
  return (
    <>
      <div className={looks.decides}>
        {subjectText[verdict.subject]} {conditionText[verdict.condition]}
        <br />
        <span className={looks.fig}>{verdictLevel(verdict)}</span>
      </div>
      <span className={`${verdictLook(verdict.word)} ${looks.large}`} data-verdict={verdict.word}>
        {verdictText[verdict.word]}
      </span>
      <p>{verdictReason(verdict)}.</p>
      {verdict.reason === 'not-started' && <WasItStarted phase={phase} condition={verdict.condition} />}
    </>
  );
}

/** Nothing measured, all passes, or what decides; nothing where a supply by itself is judged already. */
export function VerdictWord({ phase }: { readonly phase: Phase }) {
  const { bareVerdict } = useDesk().view;
  const { verdicts, deciding } = useVerdicts(phase);
  if (bareVerdict !== null && bareVerdict.word !== 'cannot-tell') return null;
  if (deciding !== null) return <Deciding verdict={deciding} phase={phase} />;
  if (bareVerdict !== null) return null;
  if (verdicts.length === 0) return <div className={looks.decides}>Nothing measured</div>;
  return (
    <>
      <div className={looks.decides}>
        <span className={verdictLook('pass')}>
          {verdicts.length} of {verdicts.length} pass
        </span>
      </div>
      <p>Every reading is inside its band, with the meter's error counted.</p>
    </>
  );
}

/** Rails that sag, wander or drift. */
export function Steadiness({ phase }: { readonly phase: Phase }) {
  const { steadiness } = useVerdicts(phase).result;
  return (
    <>
      {steadiness
        .filter((item) => item.word === 'sags' || item.word === 'wanders')
        .map((item) => (
          <p key={item.rail}>
            <strong>
              {item.rail} V {item.word === 'sags' ? `sags by ${voltsText(item.dropVolts ?? 0)} V` : 'wanders'}
            </strong>
            {item.word === 'sags'
              ? `: ${voltsText(item.lightVolts ?? 0)} without load, ${voltsText(item.workVolts ?? 0)} at work.`
              : ` between repeats by ${voltsText(item.spreadVolts ?? 0, 3)} V.`}
          </p>
        ))}
      {steadiness
        .filter((item) => item.driftVoltsPerHour !== null)
        .map((item) => (
          <p key={`drift${item.rail}`}>
            <strong>{item.rail} V drifts</strong> by {voltsText(item.driftVoltsPerHour ?? 0, 2)} V an hour between
            repeats.
          </p>
        ))}
    </>
  );
}

/** What the load line says of each rail under the plan, and which rails nobody has read. */
export function Forecasts({ phase }: { readonly phase: Phase }) {
  const { view } = useDesk();
  const planned = view.lines[phase].forecasts.map((item) => item.planned).filter((one) => one.word !== 'will-pass');
  const unread = unreadRailsText(planned);
  return (
    <>
      {planned
        .filter((one) => one.word === 'will-fail' || one.beyondAmps === null)
        .map((one) => (
          <p key={one.rail} data-forecast={one.word}>
            <strong>{subjectText[one.rail]} with the plan</strong>: {forecastText(one)}
          </p>
        ))}
      {unread !== null && <p className={looks.quiet}>{unread}</p>}
    </>
  );
}

/** Which reading would settle what nobody can tell yet. */
export function ToSettle({ phase }: { readonly phase: Phase }) {
  const { shop } = useDesk();
  const { deciding } = useVerdicts(phase);
  if (deciding?.word !== 'cannot-tell') return null;
  return (
    <p>
      <strong>To settle it:</strong> {settlingText(deciding, settlingInstruments(deciding, shop.instruments))}
    </p>
  );
}

function settlingText(verdict: Verdict, meters: readonly { readonly name: string }[]): string {
  if (meters.length > 0)
    return (
      `read it ${verdict.count < settlingReadings ? 'three times' : 'again'} with ` +
      `${meters.map((item) => item.name).join(' or ')}.`
    );
  if (verdict.settlingRepeats !== null) return `read it ${verdict.settlingRepeats} times with the load held steady.`;
  if (verdict.settlingError === null) return 'read it again three times with the load held steady.';
  return (
    `a meter with an error under ${errorText(verdict.settlingError)} ${unitOf(verdict.subject)} at ` + 'this figure.'
  );
}
