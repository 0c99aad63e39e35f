import { useLayoutEffect, useRef, useState } from 'react';
import { Button } from 'antd';
import { absentText, checkTitle, outcomeLabel, percentText, strengthText, type Suspect } from '@fairwatt/core';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import styles from './suspects.module.css';

const arrows = { strong: 3, fair: 2, slight: 1 } as const;
const shownWithout = 6;

/** What stood before the last change, so that what moved can be seen. */
function useBefore(list: readonly Suspect[]): ReadonlyMap<string, number> | null {
  const [seen, setSeen] = useState<{
    readonly now: readonly Suspect[];
    readonly before: ReadonlyMap<string, number> | null;
  }>({ now: list, before: null });
  if (seen.now !== list) {
    const moved = seen.now.some(
      (suspect) =>
        Math.abs(suspect.probability - (list.find((other) => other.faultId === suspect.faultId)?.probability ?? 0)) >
        1e-9,
    );
    setSeen({
      now: list,
      before: moved ? new Map(seen.now.map((suspect) => [suspect.faultId, suspect.probability])) : seen.before,
    });
  }
  return seen.before;
}

/** Lets rows slide to their new place when their order changed. */
function useSliding(order: string) {
  const list = useRef<HTMLOListElement>(null);
  const places = useRef(new Map<string, number>());
  useLayoutEffect(() => {
    const still = window.matchMedia('(prefers-reduced-motion: reduce)').matches;
    for (const row of list.current?.querySelectorAll<HTMLElement>('[data-suspect]') ?? []) {
      const id = row.dataset['suspect'] ?? '';
      const was = places.current.get(id);
      if (!still && was !== undefined && was !== row.offsetTop)
        row.animate([{ transform: `translateY(${was - row.offsetTop}px)` }, { transform: 'none' }], {
          duration: 320,
          easing: 'ease-out',
        });
      places.current.set(id, row.offsetTop);
    }
  }, [order]);
  return list;
}

/** The ranking that moves when an outcome comes in; each suspect opens to what speaks for and against it. */
export function Suspects() {
  const { view, knowledge } = useDesk();
  const [open, setOpen] = useState<string | null>(null);
  const [all, setAll] = useState(false);
  const before = useBefore(view.suspects);
  const shown = all
    ? view.suspects
    : view.suspects.slice(0, shownWithout).filter((suspect, index) => index === 0 || suspect.probability >= 0.01);
  const list = useSliding(shown.map((suspect) => suspect.faultId).join());
  const opened = open ?? view.suspects[0]?.faultId;
  return (
    <>
      <ol className={styles.suspects} ref={list}>
        {shown.map((suspect, index) => {
          const fault = knowledge.faults.find((item) => item.id === suspect.faultId);
          const was = before?.get(suspect.faultId);
          const step = was === undefined ? 0 : Math.round(100 * suspect.probability) - Math.round(100 * was);
          return (
            <li key={suspect.faultId} className={index === 0 ? styles.first : ''} data-suspect={suspect.faultId}>
              <Button
                type="text"
                className={`${looks.plain} ${styles.head}`}
                aria-expanded={opened === suspect.faultId}
                onClick={() => setOpen(suspect.faultId)}
              >
                <span>{fault?.name}</span>
                <span className={`${looks.fig} ${looks.nowrap}`}>
                  {step !== 0 && (
                    <span className={styles.step} aria-label={step > 0 ? `up ${step}` : `down ${-step}`}>
                      {step > 0 ? `▲${step}` : `▼${-step}`}
                    </span>
                  )}{' '}
                  {percentText(suspect.probability)}
                </span>
              </Button>
              <div className={styles.barTrack}>
                <div className={styles.barFill} style={{ width: `${suspect.probability * 100}%` }} />
                {was !== undefined && step !== 0 && (
                  <span className={styles.barWas} style={{ left: `${was * 100}%` }} />
                )}
              </div>
              {opened === suspect.faultId && <Evidence suspect={suspect} leads={index === 0} />}
            </li>
          );
        })}
      </ol>
      <Button type="link" aria-expanded={all} onClick={() => setAll(!all)}>
        {all ? 'only the likely ones' : `${view.suspects.length - shown.length} others below`}
      </Button>
      {view.absent.length > 0 && <p className={looks.quiet}>{absentText(view.absent)}</p>}
    </>
  );
}

function Evidence({ suspect, leads }: { readonly suspect: Suspect; readonly leads: boolean }) {
  const { knowledge, view } = useDesk();
  if (suspect.evidence.length === 0)
    return (
      <p className={looks.quiet}>
        {leads && view.observations.length > 0
          ? 'It leads because the others were ruled out.'
          : 'Nothing seen speaks for it or against it.'}
      </p>
    );
  return (
    <ul className={styles.evidence}>
      {suspect.evidence.slice(0, 6).map((item) => (
        <li key={`${item.checkId} ${item.outcomeId}`}>
          <span
            className={styles.weight}
            role="img"
            aria-label={`${strengthText[item.strength]} ${item.decibans > 0 ? 'for' : 'against'}`}
          >
            {(item.decibans > 0 ? '▲' : '▼').repeat(arrows[item.strength])}
          </span>
          <span>
            {checkTitle(knowledge, item.checkId)}: {outcomeLabel(knowledge, item.checkId, item.outcomeId).toLowerCase()}
            {item.damped && <span className={looks.quiet}> (counted less, tells the same)</span>}
            <span className={`${looks.quiet} ${styles.why}`}>{item.why}</span>
          </span>
        </li>
      ))}
    </ul>
  );
}
