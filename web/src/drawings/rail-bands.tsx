import {
  figureText,
  conditionText,
  isRail,
  subjectText,
  verdictLevel,
  verdictText,
  type Verdict,
} from '@fairwatt/core';
import { looks } from '../looks/looks.ts';
import styles from './rail-bands.module.css';

const rowHeight = 42;
const left = 150;
const right = 150;

/** The band as it is drawn: from nothing where only the most is limited, far out where only the least is. */
const drawn = ({ lower, upper }: Verdict) => ({
  lower: Number.isFinite(lower) ? lower : 0,
  upper: Number.isFinite(upper) ? upper : lower * 2.5,
});

function scaleOf(verdict: Verdict): { low: number; high: number } {
  const { lower, upper } = drawn(verdict);
  const span = upper - lower;
  return { low: lower - span * 0.6, high: upper + span * 0.6 };
}

/** A verdict as it is said aloud, with what the supply that came gave in the same place. */
function verdictSaid(verdict: Verdict, earlier: readonly Verdict[]): string {
  const { subject, condition, word } = verdict;
  const before = earlier
    .filter((item) => item.subject === subject && item.condition === condition)
    .map((item) => `, before ${verdictLevel(item)}`);
  const level = `${subjectText[subject]} ${conditionText[condition]} ${verdictLevel(verdict)}`;
  return `${level}: ${verdictText[word]}${before.join('')}`;
}

const colourOf: Record<Verdict['word'], string> = {
  pass: 'var(--pass)',
  marginal: 'var(--marginal)',
  fail: 'var(--fail)',
  'cannot-tell': 'var(--unknown)',
};
const markOf: Record<Verdict['word'], string> = { pass: '✓', marginal: '▲', fail: '✕', 'cannot-tell': '?' };
const faint = 'var(--ink-2)';

/** Where a verdict's row stands, and how its figures lie across it. */
interface Place {
  readonly x: (value: number) => number;
  readonly y: number;
  readonly low: number;
  readonly high: number;
  readonly inner: number;
}

function placeOf(verdict: Verdict, index: number, inner: number): Place {
  const { low, high } = scaleOf(verdict);
  const x = (value: number) => left + ((Math.min(high, Math.max(low, value)) - low) / (high - low)) * inner;
  return { x, y: index * rowHeight + 20, low, high, inner };
}

/** The band with the figures of its two ends. */
function Band({ verdict, place: { x, y, inner } }: { readonly verdict: Verdict; readonly place: Place }) {
  const { lower, upper } = drawn(verdict);
  const end = (value: number) => (isRail(verdict.subject) ? figureText(value, 2) : figureText(value));
  return (
    <>
      <line x1={left} x2={left + inner} y1={y} y2={y} stroke="var(--line)" />
      <rect
        x={x(lower)}
        y={y - 8}
        width={x(upper) - x(lower)}
        height={16}
        fill="var(--track)"
        stroke="var(--ink-2)"
        strokeWidth={1}
      />
      <text className={looks.fig} x={x(lower)} y={y + 21} fontSize={11} textAnchor="middle" fill={faint}>
        {end(lower)}
      </text>
      <text className={looks.fig} x={x(upper)} y={y + 21} fontSize={11} textAnchor="middle" fill={faint}>
        {Number.isFinite(verdict.upper) ? end(upper) : ''}
      </text>
    </>
  );
}

/** What the supply that came gave, as a hollow diamond above the band. */
function Earlier({ was, place: { x, y } }: { readonly was: Verdict | undefined; readonly place: Place }) {
  if (was?.mean == null) return null;
  return (
    <g stroke="var(--ink-2)" strokeWidth={1.5} fill="none">
      {was.expanded !== null && <path d={`M${x(was.mean - was.expanded)} ${y - 13}H${x(was.mean + was.expanded)}`} />}
      <path d={`M${x(was.mean)} ${y - 18}l5 5l-5 5l-5 -5z`} fill="var(--sheet)" />
    </g>
  );
}

/** The mean with its uncertainty; its shape says the word as well as its colour does. */
function Mean({ verdict, place }: { readonly verdict: Verdict; readonly place: Place }) {
  const { x, y, low, high, inner } = place;
  const { mean: at, expanded, word } = verdict;
  const colour = colourOf[word];
  if (at === null) return null;
  return (
    <>
      {expanded !== null && (
        <path
          d={
            `M${x(at - expanded)} ${y - 5}v10M${x(at - expanded)} ` +
            `${y}H${x(at + expanded)}M${x(at + expanded)} ${y - 5}v10`
          }
          stroke={colour}
          strokeWidth={2}
          fill="none"
        />
      )}
      {at < low ? (
        <path d={`M${left + 10} ${y - 7}l-10 7l10 7z`} fill={colour} />
      ) : at > high ? (
        <path d={`M${left + inner - 10} ${y - 7}l10 7l-10 7z`} fill={colour} />
      ) : (
        <Mark word={word} x={x(at)} y={y} />
      )}
    </>
  );
}

function Mark({ word, x, y }: { readonly word: Verdict['word']; readonly x: number; readonly y: number }) {
  const colour = colourOf[word];
  if (word === 'fail') return <path d={`M${x - 6} ${y - 6}l12 12m0 -12l-12 12`} stroke={colour} strokeWidth={3.5} />;
  if (word === 'marginal') return <path d={`M${x} ${y - 8}l8 14h-16z`} fill={colour} />;
  const fill = word === 'pass' ? colour : 'var(--sheet)';
  return <circle cx={x} cy={y} r={6} fill={fill} stroke={colour} strokeWidth={2.5} />;
}

interface Row {
  readonly verdict: Verdict;
  readonly was: Verdict | undefined;
  readonly place: Place;
}

function BandRow({ verdict, was, place }: Row) {
  const { y, inner } = place;
  return (
    <g>
      <text x={0} y={y - 1} fontSize={15} fontWeight={600}>
        {subjectText[verdict.subject]}
      </text>
      <text x={0} y={y + 15} fontSize={12.5} fill={faint}>
        {conditionText[verdict.condition]}
        {verdict.count > 1 ? `, ${verdict.count} readings` : ''}
      </text>
      <Band verdict={verdict} place={place} />
      <Earlier was={was} place={place} />
      <Mean verdict={verdict} place={place} />
      <text className={looks.fig} x={left + inner + 14} y={y - 1} fontSize={15}>
        {verdictLevel(verdict)}
      </text>
      <text x={left + inner + 14} y={y + 15} fontSize={13} fontWeight={700} fill={colourOf[verdict.word]}>
        {was !== undefined && (
          <tspan fontWeight={400} fill={faint}>
            was {verdictLevel(was)}{' '}
          </tspan>
        )}
        {markOf[verdict.word]} {verdictText[verdict.word]}
      </text>
    </g>
  );
}

/**
 * Each verdict against its band: the limits, the mean with its uncertainty, and the word. Far-off figures stand at the
 * edge with an arrow. What the supply that came gave in the same place hangs above as a hollow diamond.
 */
export function RailBands({
  verdicts,
  earlier = [],
  width = 760,
}: {
  readonly verdicts: readonly Verdict[];
  readonly earlier?: readonly Verdict[];
  readonly width?: number;
}) {
  const inner = width - left - right;
  const height = verdicts.length * rowHeight + 4;
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className={styles.drawing}
      role="img"
      aria-label={verdicts.map((verdict) => verdictSaid(verdict, earlier)).join('; ')}
    >
      {verdicts.map((verdict, index) => (
        <BandRow
          key={`${verdict.subject}-${verdict.condition}`}
          verdict={verdict}
          was={earlier.find((item) => item.subject === verdict.subject && item.condition === verdict.condition)}
          place={placeOf(verdict, index, inner)}
        />
      ))}
    </svg>
  );
}
