import { Button } from 'antd';
import {
  figureText,
  boundToBe,
  correctionText,
  fanSideText,
  fitReasonText,
  moneyText,
  percentText,
  protectionNames,
  twelveOutputsText,
  wattsText,
  type CandidateRow,
  type ShopSettings,
  plainFigure,
} from '@fairwatt/core';
import { useDesk } from '../../job/job-context.ts';
import { looks, verdictLook } from '../../looks/looks.ts';
import { classMark, classWord } from './candidate-words.ts';
import { Sheet } from '../../controls/sheet.tsx';
import { signs } from '../../controls/signs.tsx';
import styles from './compare-view.module.css';

type Row = readonly [string, (candidate: CandidateRow) => string];

/** What is compared, figure by figure. */
function comparedRows({ currency, choosing }: ShopSettings, inletLabel: (id: string) => string): readonly Row[] {
  return [
    [
      'Verdict',
      (candidate) =>
        candidate.fits
          ? classWord[candidate.class]
          : `${classWord[candidate.class]}: ${fitReasonText(boundToBe(candidate.reasons[0], 'reason'), inletLabel)}`,
    ],
    ['Points', (candidate) => (candidate.fits ? figureText(candidate.points) : '–')],
    ['Price', ({ model }) => moneyText(model.price.minor, model.price.currency)],
    [
      `Price and ${choosing.keepYears} years of mains`,
      ({ model, cost }) =>
        model.price.currency === currency
          ? moneyText(model.price.minor + cost.minorAYear * choosing.keepYears, currency)
          : 'not in one currency',
    ],
    ['Rating', ({ model }) => wattsText(model.label.ratingWatts)],
    ['Lasting load', ({ load }) => percentText(load.loadShare ?? 0)],
    ['+12 V outputs', ({ model }) => twelveOutputsText(model)],
    ['Guide', ({ model }) => model.label.guide],
    ['Grade', ({ model }) => model.label.grade],
    ['Efficiency at typical load', ({ cost }) => percentText(cost.points[1]?.efficiency ?? 0)],
    ['Cost a year', ({ cost }) => moneyText(cost.minorAYear, currency)],
    ['Shape', ({ model }) => model.label.shape],
    ['Depth', ({ model }) => `${model.depthMillimetres} mm`],
    ['Cables', ({ model, cables }) => `${model.label.modular}, ${cables} used`],
    ['Optional inlets open', ({ openOptional }) => String(openOptional.length)],
    ['Noise', ({ model }) => (model.noiseDecibels === null ? 'not known' : `${plainFigure(model.noiseDecibels)} dB`)],
    ['Air', ({ model }) => fanSideText[model.fan]],
    ['Correction', ({ model }) => correctionText[model.correction]],
    ['Protections', ({ model }) => `${model.protections.length} of ${protectionNames.length}`],
    ['Warranty', ({ model }) => `${model.warrantyYears} years`],
    ['Design of', ({ model }) => (model.designYear === null ? 'not known' : String(model.designYear))],
    ['On the shelf', ({ model }) => String(model.onShelf)],
  ];
}

/** Up to four side by side; rows in which they differ stand out, rows in which all agree step back. */
export function CompareView({
  candidates,
  chosen,
  onDrop,
}: {
  readonly candidates: readonly CandidateRow[];
  readonly chosen: boolean;
  readonly onDrop: (id: string) => void;
}) {
  const { shop, inletLabel } = useDesk();
  const rows = comparedRows(shop.settings, inletLabel);
  return (
    <section aria-label="Compare">
      {!chosen && (
        <p className={`${looks.quiet} ${looks.above}`}>
          The first three; mark others in the list with <kbd>c</kbd>, up to four.
        </p>
      )}
      <Sheet
        className={styles.compare ?? ''}
        rows={rows}
        rowKey={([name]) => name}
        rowProps={([, of]) => {
          const differs = new Set(candidates.map(of)).size > 1;
          return { className: differs ? styles.differs : styles.agrees, 'data-differs': differs };
        }}
        columns={[
          { head: <span className={looks.visuallyHidden}>Figure</span>, names: true, cell: ([name]) => name },
          ...candidates.map((candidate) => ({
            head: (
              <>
                <span className={verdictLook(classMark[candidate.class])}>{candidate.model.name}</span>
                {chosen && (
                  <Button
                    icon={signs.remove}
                    type="link"
                    aria-label={`Do not compare ${candidate.model.name}`}
                    onClick={() => onDrop(candidate.model.id)}
                  >
                    drop
                  </Button>
                )}
              </>
            ),
            cell: ([, of]: Row) => of(candidate),
          })),
        ]}
      />
    </section>
  );
}
