import { Checkbox } from 'antd';
import type { LabelRead } from '@fairwatt/core';
import { today } from '../../controls/clock.ts';
import { looks } from '../../looks/looks.ts';
import { besidesOf, yearsOf, type Beside } from './label-draft.ts';
import styles from './label-reader.module.css';

const besideText: Readonly<Record<Beside, (read: LabelRead) => string>> = {
  shape: ({ shape }) => `shape ${shape}`,
  guide: ({ guide }) => `guide ${guide}`,
  grade: ({ grade }) => `efficiency grade ${grade}`,
  has16Pin: () => 'a 16-pin card connector',
  date: (read) => `date ${read.date}, so ${yearsOf(read, today())} years old`,
};

/** What else the label tells, each to be taken or not; its mains range is for whoever plugs it in. */
export function LabelBesides({
  read,
  taken,
  onTaken,
}: {
  readonly read: LabelRead;
  readonly taken: readonly Beside[];
  readonly onTaken: (taken: readonly Beside[]) => void;
}) {
  const found = besidesOf(read);
  return (
    <>
      {found.length > 0 && (
        <div className={styles.besides} role="group" aria-label="Also on the label">
          <span className={looks.label}>Also on it</span>
          {found.map((beside) => (
            <Checkbox
              key={beside}
              checked={taken.includes(beside)}
              onChange={({ target: { checked } }) =>
                onTaken(checked ? [...taken, beside] : taken.filter((other) => other !== beside))
              }
            >
              {besideText[beside](read)}
            </Checkbox>
          ))}
        </div>
      )}
      {read.mains?.switched === true && (
        <p className={looks.caution}>
          <span>
            It takes {read.mains.from} or {read.mains.to} V by a selector: look that it stands right before the lead
            goes in.
          </span>
        </p>
      )}
    </>
  );
}
