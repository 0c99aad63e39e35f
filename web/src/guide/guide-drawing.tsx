import type { Connector, Drawing } from '@fairwatt/core';
import { ConnectorFace } from '../drawings/connector-face.tsx';

const line = { fill: 'var(--sheet)', stroke: 'var(--ink)' };
const dark = { fill: 'var(--ink)' };

/** Behind which column a plug comes apart. */
const seams: Readonly<Record<string, number | undefined>> = { '20+4': 10, '4+4': 2, '6+2': 3 };

/** A connector as one looks at it: the latch above, the key where it is. Its name always stands beside it. */
export const GuideDrawing = (props: { readonly connector: Connector; readonly width: number }) => (
  <span aria-hidden>
    <Drawn {...props} />
  </span>
);

function Drawn({ connector, width }: { readonly connector: Connector; readonly width: number }) {
  const { drawing, looks } = connector;
  if (drawing.as === 'face')
    return <ConnectorFace kind={drawing.kind} width={width} seamAfter={seams[looks.splits ?? 'whole']} />;
  const { w, h, shape } = drawn(drawing);
  const scale = Math.min(1.6, width / w);
  return (
    <svg width={w * scale} height={h * scale} viewBox={`0 0 ${w} ${h}`}>
      {shape}
    </svg>
  );
}

interface Shape {
  readonly w: number;
  readonly h: number;
  readonly shape: React.ReactNode;
}

function drawn(drawing: Exclude<Drawing, { as: 'face' }>): Shape {
  switch (drawing.as) {
    case 'grid':
      return grid(drawing);
    case 'flat':
      return flat(drawing.contacts);
    case 'round-pins':
      return roundPins();
    case 'barrel':
      return barrel();
    case 'mains':
      return mains[drawing.shape];
  }
}

const cell = 20;

/** Rows of places; those without a contact are empty rings. */
function grid({ rows, latch, small = 0, ridge = false }: Extract<Drawing, { as: 'grid' }>): Shape {
  const columns = Math.max(...rows.map((row) => row.length));
  const top = latch ? 12 : ridge ? 8 : 2;
  const w = columns * cell + 16;
  const smallRow = small > 0 ? 10 : 0;
  const h = top + smallRow + rows.length * cell + 14;
  return {
    w,
    h,
    shape: (
      <>
        {latch && <rect x={w / 2 - 16} y={1} width={32} height={12} {...dark} />}
        {ridge && <rect x={w * 0.25} y={1} width={w * 0.5} height={6} {...dark} />}
        <rect x={1} y={top} width={w - 2} height={h - top - 1} rx={3} strokeWidth={1.6} {...line} />
        {Array.from({ length: small }, (_, index) => (
          <rect key={index} x={w / 2 - small * 6 + index * 12} y={top + 4} width={7} height={5} {...dark} />
        ))}
        {rows.map((row, rowIndex) =>
          Array.from(row, (place, column) => (
            <rect
              key={`${rowIndex}-${column}`}
              x={8 + column * cell + 4}
              y={top + smallRow + 7 + rowIndex * cell + 3}
              width={cell - 8}
              height={cell - 8}
              rx={1.5}
              strokeDasharray={place === '1' ? undefined : '2 2'}
              {...(place === '1' ? dark : { fill: 'none', stroke: 'var(--ink-2)' })}
            />
          )),
        )}
      </>
    ),
  };
}

/** Contacts on a tongue with an L at its end. */
function flat(contacts: number): Shape {
  const pitch = 11;
  const w = contacts * pitch + 34;
  return {
    w,
    h: 40,
    shape: (
      <>
        <rect x={1} y={1} width={w - 2} height={38} rx={3} strokeWidth={1.6} {...line} />
        <path d={`M10 24 V12 H${w - 12} V16 H16 V24 Z`} {...dark} />
        {Array.from({ length: contacts }, (_, index) => (
          <rect key={index} x={20 + index * pitch} y={18} width={6} height={13} fill="var(--ink-2)" />
        ))}
      </>
    ),
  };
}

/** Four round contacts, two corners of one long side cut. */
function roundPins(): Shape {
  const fills = ['#F0C83A', '#262C2B', '#262C2B', '#C23B2E'];
  return {
    w: 132,
    h: 42,
    shape: (
      <>
        <path d="M12 1 H120 L131 12 V41 H1 V12 Z" strokeWidth={1.6} {...line} />
        {fills.map((fill, index) => (
          <circle key={index} cx={21 + index * 30} cy={23} r={10} fill={fill} />
        ))}
      </>
    ),
  };
}

function barrel(): Shape {
  return {
    w: 60,
    h: 60,
    shape: (
      <>
        <circle cx={30} cy={30} r={28} strokeWidth={1.6} {...line} />
        <circle cx={30} cy={30} r={17} fill="none" stroke="var(--ink)" strokeWidth={6} />
        <circle cx={30} cy={30} r={5} {...dark} />
      </>
    ),
  };
}

const blade = (x: number, y: number, across = false) => (
  <rect key={`${x}-${y}`} x={x} y={y} width={across ? 16 : 7} height={across ? 7 : 16} {...dark} />
);
const threeBlades = (
  <>
    {blade(46, 10)}
    {blade(24, 32)}
    {blade(68, 32)}
  </>
);
const trapezoid = 'M18 2 H82 L97 20 V58 H3 V20 Z';

const mains: Readonly<Record<Extract<Drawing, { as: 'mains' }>['shape'], Shape>> = {
  'three-flat': {
    w: 100,
    h: 60,
    shape: (
      <>
        <path d={trapezoid} strokeWidth={1.6} {...line} />
        {threeBlades}
      </>
    ),
  },
  notched: {
    w: 100,
    h: 60,
    shape: (
      <>
        <path d="M18 2 H82 L97 20 V58 H58 V50 H42 V58 H3 V20 Z" strokeWidth={1.6} {...line} />
        {threeBlades}
      </>
    ),
  },
  large: {
    w: 120,
    h: 76,
    shape: (
      <>
        <rect x={2} y={2} width={116} height={72} rx={6} strokeWidth={1.6} {...line} />
        {blade(52, 14, true)}
        {blade(22, 46, true)}
        {blade(82, 46, true)}
      </>
    ),
  },
  clover: {
    w: 80,
    h: 72,
    shape: (
      <>
        <path
          d="M40 2 A20 20 0 0 1 58 30 A20 20 0 1 1 40 56 A20 20 0 1 1 22 30 A20 20 0 0 1 40 2 Z"
          strokeWidth={1.6}
          {...line}
        />
        <circle cx={40} cy={20} r={6} {...dark} />
        <circle cx={24} cy={48} r={6} {...dark} />
        <circle cx={56} cy={48} r={6} {...dark} />
      </>
    ),
  },
  eight: {
    w: 90,
    h: 44,
    shape: (
      <>
        <path d="M22 2 H68 A20 20 0 0 1 68 42 H22 A20 20 0 0 1 22 2 Z" strokeWidth={1.6} {...line} />
        <circle cx={26} cy={22} r={7} {...dark} />
        <circle cx={64} cy={22} r={7} {...dark} />
      </>
    ),
  },
};
