import { useRef, useState, type ReactNode } from 'react';
import { Button, Input, type InputRef } from 'antd';
import { parseFigure, pinExpectText, type GroundProof, type JudgedPin, type ProbedPin } from '@fairwatt/core';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import styles from './walk-entry.module.css';

const longestWall = 60;

/** What a pin came to; with how its ground was proved, where it was. */
export type PutPin = (value: ProbedPin['value'], ground?: GroundProof) => boolean;

/** How a ground or a code is proved: the probes change places. */
const proveText = ({ expects }: JudgedPin) =>
  expects.kind === 'coded'
    ? 'red on a known rail, black on this pin: that rail at ground, 0 V where it is open'
    : 'red on a known rail, black on this pin: it must show that rail';

/** The pin to touch, and what it must show. */
function PinAsked({ at, proving }: { readonly at: JudgedPin; readonly proving: boolean }) {
  return (
    <p className={looks.decides}>
      {proving
        ? `Prove the ${at.expects.kind === 'coded' ? 'code' : 'ground'} on pin ${at.name}`
        : `Touch pin ${at.name}`}
      <span className={`${looks.quiet} ${styles.beside}`}>
        {' '}
        {proving ? proveText(at) : `must show ${pinExpectText(at.expects)}`}
      </span>
    </p>
  );
}

/** The pin to touch, what it must show, and the field for what it shows. */
export function WalkEntry({
  at,
  proving,
  onPut,
  children,
}: {
  readonly at: JudgedPin;
  /** Its ground is proved now; what it carries is known. */
  readonly proving: boolean;
  readonly onPut: PutPin;
  /** Further ways to take it. */
  readonly children: ReactNode;
}) {
  const { locked } = useDesk();
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const field = useRef<InputRef>(null);
  const shown = proving ? at.value : null;
  const put: PutPin = (value, ground) => {
    if (!onPut(value, ground)) return false;
    setText('');
    setProblem(null);
    field.current?.focus();
    return true;
  };
  function keep(): void {
    const figure = parseFigure(text);
    if (figure === null) setProblem(`“${text}” is not a figure; write it like 11.9, or press Absent`);
    else if (Math.abs(figure) > longestWall) setProblem("A supply's output is never above 60 V: check meter and pin.");
    else if (shown !== null) put(shown, { kind: 'rail', volts: figure });
    else put({ kind: 'figure', figure });
  }
  return (
    <form
      className={styles.walkEntry}
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <PinAsked at={at} proving={proving} />
      <div className={looks.rowActions}>
        <Input
          ref={field}
          data-entry
          className={`${looks.fig} ${looks.cellInput} ${styles.figure}`}

          autoFocus
          inputMode="decimal"
          autoComplete="off"
          aria-label={`Volts at pin ${at.name}`}
          aria-invalid={problem !== null}
          value={text}
          disabled={locked}
          onChange={(event) => {
            setText(event.target.value);
            setProblem(null);
          }}
        />
        <Button htmlType="submit" disabled={locked || text.trim() === ''}>
          Keep <kbd aria-hidden="true">↵</kbd>
        </Button>
        <WithoutFigure shown={shown} onPut={put} />
        {children}
        {at.value !== null && !proving && (
          <span className={looks.quiet}>was {at.value.kind === 'figure' ? `${at.value.figure} V` : at.value.code}</span>
        )}
      </div>
      {problem !== null && (
        <p className={looks.errorText} role="alert">
          {problem}
        </p>
      )}
    </form>
  );
}

/** What is told of a pin without a figure: nothing there, or whether its ground was heard. */
function WithoutFigure({ shown, onPut }: { readonly shown: ProbedPin['value'] | null; readonly onPut: PutPin }) {
  const { locked } = useDesk();
  if (shown === null)
    return (
      <Button disabled={locked} onClick={() => onPut({ kind: 'code', code: 'absent' })}>
        Absent
      </Button>
    );
  return (
    <>
      <Button disabled={locked} onClick={() => onPut(shown, { kind: 'continuity', heard: true })}>
        Lead out: continuity to ground
      </Button>
      <Button disabled={locked} onClick={() => onPut(shown, { kind: 'continuity', heard: false })}>
        No continuity
      </Button>
    </>
  );
}
