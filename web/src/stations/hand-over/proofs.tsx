import {
  barring,
  outNow,
  outNowText,
  proofNextText,
  proofText,
  proofsAsked,
  provingPower,
  standingProof,
  type ProofItem,
} from '@fairwatt/core';
import { useEffect, useState } from 'react';
import { Button } from 'antd';
import { Keys, TextField } from '../../controls/fields.tsx';
import { clockTime } from '../../controls/clock.ts';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import styles from './proofs.module.css';

const answers = [
  { value: 'yes', label: 'Yes' },
  { value: 'no', label: 'No' },
] as const;
const sentence = (text: string) => `${text.slice(0, 1).toUpperCase()}${text.slice(1)}`;

/** What has to be seen of the finished machine, each with one key; what does not hold says what comes next. */
export function Proofs() {
  const { job, view } = useDesk();
  const asked = proofsAsked(job);
  // Whoever says that one holds goes on to the next that was not said.
  const [said, setSaid] = useState(0);
  useEffect(() => {
    if (said > 0) document.querySelector<HTMLElement>(`[data-proof][data-holds=unknown] .${looks.key}`)?.focus();
  }, [said]);
  // What was seen of a closed job stands in its summary.
  if (asked.length === 0 || job.state !== 'open') return null;
  const shown = asked.filter((item) => standingProof(job, item)?.holds === true).length;
  // While something dangerous stands the machine is not powered, so that nothing can be shown.
  const barred = barring(view.interlocks, provingPower(job)) !== null;
  const out = outNowText(outNow(job, view.cabling));
  return (
    <section className={`${looks.block} ${looks.noPrint}`} aria-label="Shown at the machine">
      <span className={looks.label}>
        Shown at the machine, {shown} of {asked.length}
      </span>
      {barred && (
        <p className={`${looks.caution} ${styles.caution}`} role="note">
          Nothing is tried while something dangerous stands; see Find the fault.
        </p>
      )}
      {!barred && out !== '' && (
        <p className={`${looks.caution} ${styles.caution}`} role="note">
          {out}: they go back before the machine is powered. What is tried without them says nothing of them.
        </p>
      )}
      <ul className={styles.proofs}>
        {asked.map((item) => (
          <ProofRow key={item} item={item} barred={barred} onHolds={() => setSaid(said + 1)} />
        ))}
      </ul>
    </section>
  );
}

function ProofRow({
  item,
  barred,
  onHolds,
}: {
  readonly item: ProofItem;
  readonly barred: boolean;
  readonly onHolds: () => void;
}) {
  const { job, act, locked, personName, goTo } = useDesk();
  const proof = standingProof(job, item);
  const say = (holds: boolean, note: string) =>
    act({ kind: 'note-proof', item, holds, note, basedOn: proof?.version ?? 0 });
  const earlier = job.proofs.some((one) => one.item === item && one !== proof);
  return (
    <li data-proof={item} data-holds={proof === null ? 'unknown' : proof.holds}>
      <div className={styles.what}>
        <strong>{sentence(proofText[item])}</strong>
        {item === 'complaint' && job.sheet.words !== '' && <span className={looks.quiet}>“{job.sheet.words}”</span>}
        {proof === null && earlier && (
          <span className={looks.quiet}>It was said of what was in the machine before; it is asked again of this.</span>
        )}
        {proof !== null && (
          <span className={looks.quiet}>
            {personName(proof.by)}, {clockTime(proof.at)}
          </span>
        )}
      </div>
      <Keys
        label={sentence(proofText[item])}
        value={proof === null ? null : proof.holds ? 'yes' : 'no'}
        options={answers}
        digits={false}
        disabled={locked || barred}
        onPick={(answer) => {
          const holds = answer === 'yes';
          if (proof?.holds === holds) act({ kind: 'drop-proof', item, basedOn: proof.version });
          else say(holds, proof?.note ?? '');
          // Enter goes on with the next one, and does not take this answer back.
          (document.activeElement as HTMLElement | null)?.blur();
          if (holds && proof?.holds !== true) onHolds();
        }}
      />
      {proof !== null && (item === 'complaint' || !proof.holds) && (
        <div className={styles.how}>
          <TextField
            label={item === 'complaint' ? 'How long, and under what load' : 'What was seen'}
            wide
            maxLength={500}
            value={proof.note}
            disabled={locked}
            onChange={(note) => say(proof.holds, note)}
          />
        </div>
      )}
      {proof?.holds === false && (
        <p className={`${looks.caution} ${styles.how}`}>
          {proofNextText[item]}{' '}
          <Button type="link" onClick={() => goTo(item === 'complaint' || item === 'started' ? 'fault' : 'cables')}>
            {item === 'complaint' || item === 'started' ? 'Find the fault' : 'Cables'}
          </Button>
        </p>
      )}
    </li>
  );
}
