import { useState } from 'react';
import { Button, Checkbox } from 'antd';
import { useNavigate } from 'react-router';
import { openPointText, type OpenPoint, type OpenPointCode, type StationId } from '@fairwatt/core';
import { ReasonForm } from '../../controls/reason-form.tsx';
import { useDesk } from '../../job/job-context.ts';
import type { CablesWay } from '../cables/cables.tsx';
import { looks } from '../../looks/looks.ts';
import styles from './open-point-row.module.css';

/** The station at which a point is settled. */
const station: Readonly<Record<OpenPointCode, StationId>> = {
  danger: 'fault',
  'no-finding': 'fault',
  'not-confirmed': 'fault',
  'no-choice': 'replacement',
  'inlet-open': 'cables',
  'inlet-wrong': 'cables',
  'not-seated': 'cables',
  'not-rechecked': 'cables',
  'plan-breach': 'cables',
  'plug-misfit': 'cables',
  'found-adapter': 'cables',
  'not-recorded': 'cables',
  'take-out-open': 'cables',
  'refit-open': 'cables',
  'lead-out': 'cables',
  'leads-unsaid': 'cables',
  'not-shown': 'hand-over',
  'shown-wrong': 'hand-over',
  'no-readings-after': 'measure',
  'old-supply-unmarked': 'hand-over',
  'fails-after': 'measure',
  'bare-unjudged': 'measure',
  'failed-kept': 'hand-over',
};

/** Points that have a way of their own at Cables. */
const wayOf: Readonly<Partial<Record<OpenPointCode, CablesWay>>> = {
  'lead-out': 'leads',
  'leads-unsaid': 'leads',
  'not-recorded': 'was',
  'take-out-open': 'out',
  'refit-open': 'refit',
};

/** Leads to where an open point is settled: another station, a way through it, or the row on this one. */
export function useLeadTo(): (point: OpenPoint) => void {
  const { goTo, code } = useDesk();
  const navigate = useNavigate();
  return (point) => {
    const way = wayOf[point.code];
    if (way !== undefined) void navigate(`/jobs/${code}/cables?way=${way}`);
    else if (station[point.code] !== 'hand-over') goTo(station[point.code]);
    else if (point.code === 'old-supply-unmarked' || point.code === 'failed-kept')
      document.querySelector<HTMLElement>(`[data-old-supply] .${looks.key}`)?.focus();
    else document.querySelector<HTMLElement>(`[data-proof="${point.subject ?? ''}"] .${looks.key}`)?.focus();
  };
}

/** One open point: led to, or signed off with a reason. */
export function OpenPointRow({
  point,
  alike,
}: {
  readonly point: OpenPoint;
  /** The other open points of the same kind, which can be answered for together. */
  readonly alike: readonly OpenPoint[];
}) {
  const text = openPointText(point);
  const { act, locked } = useDesk();
  const leadTo = useLeadTo();
  const [asked, setAsked] = useState(false);
  const [together, setTogether] = useState(false);
  return (
    <li className={styles.row}>
      <span className={styles.mark} aria-hidden="true">
        ○
      </span>
      <div>
        <Button type="text" className={looks.plain} onClick={() => leadTo(point)}>
          <span className={styles.text}>{text}</span>
        </Button>
        {!asked ? (
          <Button type="link" disabled={locked} aria-label={`Sign off: ${text}`} onClick={() => setAsked(true)}>
            sign off
          </Button>
        ) : (
          <ReasonForm
            label={`Reason for leaving open: ${text}`}
            placeholder="Why may it stay open?"
            act="Sign"
            onCancel={() => setAsked(false)}
            onReason={(reason) => {
              for (const { key } of together ? [point, ...alike] : [point])
                act({ kind: 'sign-off', id: crypto.randomUUID(), point: key, reason });
            }}
          >
            {alike.length > 0 && point.code !== 'danger' && (
              <Checkbox checked={together} onChange={(event) => setTogether(event.target.checked)}>
                and the {alike.length === 1 ? 'other one' : `${alike.length} others`} of this kind
              </Checkbox>
            )}
          </ReasonForm>
        )}
      </div>
    </li>
  );
}
