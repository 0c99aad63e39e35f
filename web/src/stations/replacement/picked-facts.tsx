import {
  figureText,
  correctionText,
  criterionFigureText,
  criterionText,
  dayText,
  doubtsText,
  fanSideText,
  fitReasonText,
  loadFindingText,
  moneyText,
  ownPlugText,
  percentText,
  remedyText,
  tooLargeText,
  wattsText,
  type CandidateRow,
} from '@fairwatt/core';
import { useDesk } from '../../job/job-context.ts';
import { looks, verdictLook } from '../../looks/looks.ts';
import styles from './picked-facts.module.css';

interface Props {
  readonly candidate: CandidateRow;
}

/** What the supply is, in figures. */
export function PickedFacts({ candidate }: Props) {
  const { currency } = useDesk().shop.settings;
  const { model, load, cost } = candidate;
  return (
    <>
      <dl className={looks.factsList}>
        <div>
          <dt>rating, guide</dt>
          <dd>
            {wattsText(model.label.ratingWatts)}, {model.label.guide}
          </dd>
        </div>
        <div>
          <dt>lasting load</dt>
          <dd>{percentText(load.loadShare ?? 0)}</dd>
        </div>
        <div>
          <dt>shape, depth</dt>
          <dd>
            {model.label.shape}, {model.depthMillimetres} mm
          </dd>
        </div>
        <div>
          <dt>grade, noise</dt>
          <dd>
            {model.label.grade}
            {model.noiseDecibels === null ? '' : `, ${Math.round(model.noiseDecibels)} dB`}
          </dd>
        </div>
        <div>
          <dt>price, warranty</dt>
          <dd>
            {moneyText(model.price.minor, model.price.currency)}, {model.warrantyYears} y
          </dd>
        </div>
        <div>
          <dt>runs for, a year</dt>
          <dd>{moneyText(cost.minorAYear, currency)}</dd>
        </div>
        <div>
          <dt>cables used</dt>
          <dd>{candidate.cables}</dd>
        </div>
      </dl>
      <p className={looks.quiet}>
        {correctionText[model.correction]}, {fanSideText[model.fan]}
        {model.price.asOf === null ? '' : `, price of ${dayText(model.price.asOf)}`}
        {model.price.currency === currency ? '' : `; its price is in ${model.price.currency} and not compared`}.
      </p>
    </>
  );
}

/** Why it fits, almost fits or falls, and what is to be known of it beside. */
export function PickedWhy({ candidate }: Props) {
  const { view, shop, inletLabel, partName } = useDesk();
  const { currency } = shop.settings;
  const { load } = candidate;
  const ownInlets = view.cabling.rows.filter(
    ({ kind, inletId }) =>
      kind === 'main-own' && candidate.reasons.some((item) => item.code === 'inlet' && item.inletId === inletId),
  );
  return (
    <>
      {candidate.class === 'almost' && (
        <p>
          <strong>It would fit</strong> with{' '}
          {candidate.remedies.map((remedy) => remedyText(remedy, inletLabel, partName)).join(' and ')}.
        </p>
      )}
      {candidate.fits ? (
        <>
          {load.deciding !== null && <p>Fullest: {loadFindingText(load.deciding)}.</p>}
          {doubtsText(load.doubts) !== null && <p className={looks.quiet}>{doubtsText(load.doubts)}</p>}
        </>
      ) : (
        <ul>
          {candidate.reasons.map((item, index) => (
            <li key={index} className={`${verdictLook('fail')} ${looks.wraps} ${looks.regular}`}>
              {fitReasonText(item, inletLabel)}
            </li>
          ))}
        </ul>
      )}
      {ownInlets.map(({ inletId, label }) => (
        <p key={inletId}>{ownPlugText(label)}</p>
      ))}
      {candidate.warnings.map((warning) => (
        <p key={warning.code} className={looks.caution}>
          <span>
            It fits, but is {tooLargeText(warning)}; {moneyText(warning.minorAYear, currency)} a year to run.
          </span>
        </p>
      ))}
      {!candidate.planProved && (
        <p className={looks.quiet}>So many different inlets that a better cable plan may exist.</p>
      )}
      {candidate.openOptional.map((id) => (
        <p key={id}>{inletLabel(id)} stays open: ordinary use does without it, full boost does not.</p>
      ))}
    </>
  );
}

/** The points of what fits, by criterion. */
export function PickedMarks({ candidate }: Props) {
  const { choosing, currency } = useDesk().shop.settings;
  if (!candidate.fits) return null;
  return (
    <div
      className={styles.marks}
      role="img"
      aria-label={candidate.marks
        .map(
          (mark) =>
            `${criterionText[mark.criterion]}: ` +
            `${criterionFigureText(candidate, mark.criterion, currency)}, ${figureText(mark.points)} ` +
            'points',
        )
        .join('; ')}
    >
      {candidate.marks
        .filter((mark) => choosing.weights[mark.criterion] > 0)
        .map((mark) => (
          <div key={mark.criterion}>
            <span>{criterionText[mark.criterion]}</span>
            <span className={styles.track}>
              <span style={{ width: `${mark.good * 100}%` }} />
            </span>
            <span className={looks.fig}>{figureText(mark.points)}</span>
          </div>
        ))}
    </div>
  );
}
