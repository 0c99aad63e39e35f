import { Fragment, useMemo, useState, type KeyboardEvent } from 'react';
import { Button, Checkbox, Input } from 'antd';
import {
  boardForGranted,
  leftOpenText,
  mostLetters,
  partClass,
  saidDoubtText,
  saidText,
  takeIn,
  understand,
  upgradeLine,
  type Span,
  type Understood,
} from '@fairwatt/core';
import { useOwnPartsQuery } from '../../app/api.ts';
import { isUndo } from '../../app/keys.ts';
import { useDesk } from '../../job/job-context.ts';
import UpgradeInWords from '../../job/upgrade-in-words.tsx';
import { useKeptLine } from '../../job/use-kept-line.ts';
import { useTypedText } from '../../offline/typed-texts.ts';
import { looks } from '../../looks/looks.ts';
import { FromListing } from './from-listing.tsx';
import { LikeEarlier } from './like-earlier.tsx';
import { newPartId } from './new-part-id.ts';
import { UsualMachines } from './usual-machines.tsx';
import { useTakingIn } from './use-taking-in.ts';
import styles from './machine-line.module.css';

const example = 'tower, 8-core 125 W, 2x16 new memory, card 3x8 320 W, 2 m.2, 4 hard drives, 6 fans';

/** Words that stand side by side are one piece. */
function joined(line: string, spans: readonly Span[]): Span[] {
  return [...spans]
    .sort((a, b) => a.from - b.from)
    .reduce<Span[]>((all, span) => {
      const before = all.at(-1);
      const beside = before !== undefined && line.slice(before.to, span.from).trim() === '';
      return beside ? [...all.slice(0, -1), { from: before.from, to: span.to }] : [...all, span];
    }, []);
}

/** The pieces of a line that are kept in the field: those that nothing was made of. */
const leftOver = (line: string, spans: readonly Span[]): string =>
  joined(line, spans)
    .map(({ from, to }) => line.slice(from, to))
    .join(', ');

/** The typed line, and what it would put into the machine. */
function useUnderstoodLine() {
  const { job, shop, locked } = useDesk();
  const ownQuery = useOwnPartsQuery();
  const [line, setLine] = useTypedText(`${job.code}.machine-line`);
  const [withBoard, setWithBoard] = useState(true);
  const own = useMemo(() => ownQuery.data ?? [], [ownQuery.data]);
  const understood = useMemo(() => understand(line, own, shop.supplies), [line, own, shop.supplies]);
  const granted = boardForGranted(understood, job.parts);
  const board = withBoard ? granted : null;
  const taken = useMemo(
    () => takeIn(understood, line, job, own, board, newPartId),
    [understood, line, job, own, board],
  );
  return { line, setLine, understood, granted, withBoard, setWithBoard, taken, locked };
}

/** The machine as somebody says it, in one line; what it becomes stands beneath while it is typed. */
export function MachineLine() {
  const takeActs = useTakingIn();
  const kept = useKeptLine();
  const { line, setLine, understood, granted, withBoard, setWithBoard, taken, locked } = useUnderstoodLine();
  const nothing = taken.acts.length === 0;

  function take(): void {
    if (nothing || locked) return;
    const open = taken.open.map(({ said }) => said);
    if (!takeActs(taken.acts)) return;
    const rest = leftOver(line, [...understood.unknown, ...open]);
    kept.keep(line, rest);
    setLine(rest);
  }

  function intoTheLine(words: string): void {
    setLine(upgradeLine(words).slice(0, mostLetters));
    document.querySelector<HTMLElement>(`.${looks.work} [data-entry]`)?.focus();
  }

  function onKey(event: KeyboardEvent<HTMLTextAreaElement>): void {
    // Taken back where it was typed, the line stands there again.
    const typed = isUndo(event) ? kept.takeBack(line) : null;
    if (typed !== null) {
      event.preventDefault();
      setLine(typed);
    }
    if (event.key !== 'Enter' || event.shiftKey) return;
    event.preventDefault();
    // Where nothing can be taken in, Enter leaves the line as it is, and the next one goes on.
    if (nothing) event.currentTarget.blur();
    else take();
  }

  return (
    <div className={`${styles.whole} ${looks.block}`}>
      <label className={`${looks.field} ${looks.wide}`}>
        <span className={looks.name}>The machine in one line; Enter takes it in</span>
        <Input.TextArea
          aria-label="The machine in one line"
          data-entry
          value={line}
          placeholder={example}
          disabled={locked}
          maxLength={mostLetters}
          rows={1}
          className={styles.line ?? ''}
          onChange={(event) => setLine(event.target.value)}
          onKeyDown={onKey}
        />
      </label>
      <div className={styles.machineLineActs}>
        <UsualMachines onLine={setLine} />
        <LikeEarlier />
        <FromListing />
        <Button disabled={nothing || locked} onClick={take}>
          Take it in
        </Button>
      </div>
      {line.trim() === '' && (
        <div className={styles.planned}>
          <UpgradeInWords act="Into the line" onAct={intoTheLine} />
        </div>
      )}
      {line.trim() !== '' && (
        <Reading
          line={line}
          understood={understood}
          taken={taken}
          granted={granted}
          withBoard={withBoard}
          onBoard={setWithBoard}
        />
      )}
    </div>
  );
}

/** The words of a piece, with the bracket that closes one of them. */
function wordsAt(line: string, { from, to }: Span): string {
  const words = line.slice(from, to);
  const opened = words.split('(').length > words.split(')').length;
  return opened && line[to] === ')' ? `${words})` : words;
}

/** What the line was understood as: piece by piece, with what was taken for granted and what was not understood. */
function Reading({
  line,
  understood,
  taken: { open, came },
  granted,
  withBoard,
  onBoard,
}: {
  readonly line: string;
  readonly understood: Understood;
  readonly taken: ReturnType<typeof takeIn>;
  readonly granted: string | null;
  readonly withBoard: boolean;
  readonly onBoard: (on: boolean) => void;
}) {
  return (
    <dl className={styles.reading} aria-label="What was understood" aria-live="polite">
      {understood.said.map((said, index) => {
        const left = open.find((one) => one.said === said);
        const cameWithIt = came.some((one) => one === said);
        const doubt = saidDoubtText(said, cameWithIt);
        return (
          <Fragment key={`${said.from}-${index}`}>
            <dt>{wordsAt(line, said) || <span className={looks.quiet}>in the place of</span>}</dt>
            <dd className={left !== undefined ? styles.ask : doubt === null ? '' : styles.doubt}>
              {left === undefined ? saidText(said, cameWithIt) : leftOpenText(left)}
              {doubt !== null && <span className={looks.quiet}> {doubt}</span>}
            </dd>
          </Fragment>
        );
      })}
      {granted !== null && (
        <>
          <dt className={looks.quiet}>no board said</dt>
          <dd className={styles.doubt}>
            <Checkbox checked={withBoard} onChange={(event) => onBoard(event.target.checked)}>
              {partClass(granted)?.name}
            </Checkbox>
          </dd>
        </>
      )}
      {understood.said.length === 0 && understood.unknown.length === 0 && (
        <dd className={styles.ask}>Nothing here is to be taken in.</dd>
      )}
      {understood.unknown.length > 0 && (
        <>
          <dt>
            {joined(line, understood.unknown).map(({ from, to }) => (
              <mark key={from}>{line.slice(from, to)}</mark>
            ))}
          </dt>
          <dd className={styles.ask}>not understood; it stays in the line</dd>
        </>
      )}
    </dl>
  );
}
