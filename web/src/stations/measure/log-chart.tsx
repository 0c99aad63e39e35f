import { useCallback, useEffect, useRef, useState, type KeyboardEvent, type RefObject, type WheelEvent } from 'react';
import { Button } from 'antd';
import { transfer, wrap, type Remote } from 'comlink';
import { railBand, voltsText, type Guide, type RailName } from '@fairwatt/core';
import { useAppSelector } from '../../app/store.ts';
import { timeSpanText } from '../../controls/clock.ts';
import type { ChartInk, ChartSession } from '../../workers/chart-worker.ts';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import { signs } from '../../controls/signs.tsx';
import styles from './log-chart.module.css';

export interface CurvePieces {
  readonly seconds: ArrayLike<number>;
  readonly low: ArrayLike<number>;
  readonly high: ArrayLike<number>;
}
export interface Span {
  readonly from: number;
  readonly to: number;
}

function pageInk(): ChartInk {
  const style = getComputedStyle(document.documentElement);
  const colour = (name: string) => style.getPropertyValue(name).trim();
  return { ink: colour('--ink'), quiet: colour('--ink-2'), line: colour('--line'), fail: colour('--fail') };
}

/** A canvas in `frame` that a worker of its own draws into; null until it is ready. */
function useDrawnFrame(
  frame: RefObject<HTMLDivElement | null>,
  locale: string,
): {
  readonly session: Remote<ChartSession> | null;
  readonly failed: boolean;
} {
  const [state, setState] = useState<{ readonly session: Remote<ChartSession> | null; readonly failed: boolean }>({
    session: null,
    failed: false,
  });
  useEffect(() => {
    const box = frame.current;
    if (box === null) return undefined;
    const worker = new Worker(new URL('../../workers/chart-worker.ts', import.meta.url), { type: 'module' });
    const session = wrap<ChartSession>(worker);
    // A canvas is handed over once and for all, so each worker gets one of its own.
    const canvas = document.createElement('canvas');
    box.append(canvas);
    const fit = () => {
      const width = Math.max(1, box.clientWidth);
      const height = Math.max(1, box.clientHeight);
      canvas.style.width = `${width}px`;
      canvas.style.height = `${height}px`;
      return { width, height };
    };
    const resize = () => {
      const { width, height } = fit();
      void session.resize(width, height);
    };
    const offscreen = canvas.transferControlToOffscreen();
    let gone = false;
    void session.open(transfer(offscreen, [offscreen]), { ...fit(), ratio: window.devicePixelRatio }, locale).then(
      () => {
        if (!gone) {
          resize();
          setState({ session, failed: false });
        }
      },
      () => {
        if (!gone) setState({ session: null, failed: true });
      },
    );
    const watch = new ResizeObserver(resize);
    watch.observe(box);
    return () => {
      gone = true;
      watch.disconnect();
      worker.terminate();
      canvas.remove();
      setState({ session: null, failed: false });
    };
  }, [frame, locale]);
  return state;
}

interface Curve {
  readonly rail: RailName;
  readonly guide: Guide;
  readonly span: Span;
  readonly fetchPieces: (rail: RailName, span: Span) => Promise<CurvePieces | null>;
}

/** Draws a span of the rail whenever it, or the theme, is another. @returns the range that the rail has there */
function useCurve(session: ReturnType<typeof useDrawnFrame>['session'], { rail, guide, span, fetchPieces }: Curve) {
  const theme = useAppSelector((state) => state.session.theme);
  const wanted = useRef(0);
  const [range, setRange] = useState('');
  const { lower, upper } = railBand(rail, guide);
  useEffect(() => {
    const turn = ++wanted.current;
    void fetchPieces(rail, span).then((pieces) => {
      // A newer wish has overtaken this answer.
      if (pieces === null || turn !== wanted.current) return;
      void session?.draw(
        { seconds: pieces.seconds, low: pieces.low, high: pieces.high, from: span.from, to: span.to, lower, upper },
        pageInk(),
      );
      const least = Array.from(pieces.low).reduce((sofar, volts) => Math.min(sofar, volts), Infinity);
      const most = Array.from(pieces.high).reduce((sofar, volts) => Math.max(sofar, volts), -Infinity);
      setRange(`${voltsText(least, 3)} to ${voltsText(most, 3)} V`);
    });
  }, [session, theme, rail, span, lower, upper, fetchPieces]);
  return range;
}

interface Zoomed {
  readonly whole: Span;
  readonly span: Span;
  readonly onSpan: (span: Span) => void;
}

/** Nearer, further and sideways, inside the whole. */
function useZoom({ whole, span, onSpan }: Zoomed) {
  const zoom = useCallback(
    (factor: number, share = 0.5) => {
      const length = Math.min(
        whole.to - whole.from,
        Math.max((whole.to - whole.from) / 50_000, (span.to - span.from) * factor),
      );
      const middle = span.from + (span.to - span.from) * share;
      const from = Math.min(whole.to - length, Math.max(whole.from, middle - length * share));
      onSpan({ from, to: from + length });
    },
    [whole, span, onSpan],
  );
  const shift = useCallback(
    (share: number) => {
      const length = span.to - span.from;
      const from = Math.min(whole.to - length, Math.max(whole.from, span.from + length * share));
      onSpan({ from, to: from + length });
    },
    [whole, span, onSpan],
  );
  return { zoom, shift };
}

function ZoomKeys({
  zoom,
  shift,
  all,
  told,
}: {
  readonly zoom: (factor: number) => void;
  readonly shift: (share: number) => void;
  readonly all: () => void;
  readonly told: string;
}) {
  return (
    <div className={`${looks.rowActions} ${looks.midLine} ${looks.above}`}>
      <Button icon={signs.zoomIn} onClick={() => zoom(0.5)}>
        Zoom in
      </Button>
      <Button icon={signs.zoomOut} onClick={() => zoom(2)}>
        Zoom out
      </Button>
      <Button icon={signs.previous} aria-label="Earlier" title="Earlier" onClick={() => shift(-0.5)} />
      <Button icon={signs.next} aria-label="Later" title="Later" onClick={() => shift(0.5)} />
      <Button onClick={all}>All</Button>
      <span className={`${looks.quiet} ${looks.fig}`}>{told}</span>
    </div>
  );
}

/**
 * One rail over time as a band from lowest to highest, with its limits. Wheel, keys and buttons zoom; the pieces come
 * from `fetchPieces`, and a worker draws them.
 */
export function LogChart({
  rail,
  guide,
  whole,
  span,
  onSpan,
  fetchPieces,
}: {
  readonly rail: RailName;
  readonly guide: Guide;
  readonly whole: Span;
  readonly span: Span;
  readonly onSpan: (span: Span) => void;
  readonly fetchPieces: (rail: RailName, span: Span) => Promise<CurvePieces | null>;
}) {
  const frame = useRef<HTMLDivElement>(null);
  const { session, failed } = useDrawnFrame(frame, useDesk().shop.settings.locale);
  const range = useCurve(session, { rail, guide, span, fetchPieces });
  const { zoom, shift } = useZoom({ whole, span, onSpan });

  function onKey(event: KeyboardEvent): void {
    const done: Partial<Record<string, () => void>> = {
      '+': () => zoom(0.5),
      '=': () => zoom(0.5),
      '-': () => zoom(2),
      ArrowLeft: () => shift(-0.25),
      ArrowRight: () => shift(0.25),
      '0': () => onSpan(whole),
    };
    const run = done[event.key];
    if (run === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    run();
  }
  function onWheel(event: WheelEvent): void {
    const box = event.currentTarget.getBoundingClientRect();
    zoom(event.deltaY > 0 ? 1.35 : 0.74, Math.min(1, Math.max(0, (event.clientX - box.left - 50) / (box.width - 60))));
  }
  return (
    <div>
      <ZoomKeys
        zoom={zoom}
        shift={shift}
        all={() => onSpan(whole)}
        told={`${timeSpanText(span.from)} to ${timeSpanText(span.to)}: ${range}`}
      />
      <div
        className={styles.logChart}
        role="application"
        tabIndex={0}
        aria-label={`${rail} V over time, ${range}; plus and minus zoom, arrows move, 0 shows all`}
        onKeyDown={onKey}
        onWheel={onWheel}
        data-drawn={session !== null}
      >
        <div ref={frame} />
      </div>
      {failed && (
        <p className={looks.errorText} role="alert">
          The curve cannot be drawn here; the figures above and the list of events hold all the same.
        </p>
      )}
    </div>
  );
}
