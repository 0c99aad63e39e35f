import { useRef, useState, type ReactNode, type RefObject } from 'react';
import { flushSync } from 'react-dom';
import {
  DndContext,
  getFirstCollision,
  MouseSensor,
  pointerWithin,
  TouchSensor,
  useDndMonitor,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
  type DragMoveEvent,
  type SensorProps,
  type UniqueIdentifier,
} from '@dnd-kit/core';
import { getEventCoordinates } from '@dnd-kit/utilities';
import type { InletRow } from '@fairwatt/core';
import { width } from './harness-layout.ts';
import { DragShape } from './harness-shapes.tsx';

/**
 * Draws every step of the way before the next is heard. A plug let go right after a fast move would else go where it
 * was drawn last, not where it is.
 */
const drawnAtOnce = <T extends SensorProps<object>>(sensor: T): T => ({
  ...sensor,
  onStart: (at) => flushSync(() => sensor.onStart(at)),
  onMove: (at) => flushSync(() => sensor.onMove(at)),
});
class PromptMouse extends MouseSensor {
  constructor(sensor: ConstructorParameters<typeof MouseSensor>[0]) {
    super(drawnAtOnce(sensor));
  }
}
class PromptFinger extends TouchSensor {
  constructor(sensor: ConstructorParameters<typeof TouchSensor>[0]) {
    super(drawnAtOnce(sensor));
  }
}

/** A mouse has to mean it; a finger holds still first, so that it can scroll the drawing as well. */
const byMouse = { activationConstraint: { distance: 4 } };
const byFinger = { activationConstraint: { delay: 250, tolerance: 6 } };

/**
 * The inlet where the plug is let go, null for none. Read from what the pointer is within, as the last move found it:
 * the inlet that the library calls `over` is one drawing behind, and so the one before it where a page is busy.
 */
const letGoIn = ({ active, collisions }: Pick<DragEndEvent, 'active' | 'collisions'>): UniqueIdentifier | null => {
  const inlet = getFirstCollision(collisions, 'id');
  return inlet === active.id ? null : inlet;
};

/** What is said while a plug is in hand, and of where it was let go. */
const announcementsOf = (rows: readonly InletRow[], letGo: RefObject<UniqueIdentifier | null>): Announcements => {
  const labelOf = (id: string | number) => rows.find((row) => row.inletId === id)?.label ?? '';
  return {
    onDragStart: ({ active }) => `The plug in ${labelOf(active.id)} is in hand`,
    onDragOver: ({ over }) => (over === null ? 'Over no inlet' : `Over ${labelOf(over.id)}`),
    onDragEnd: ({ active }) =>
      letGo.current === null
        ? `The plug stays in ${labelOf(active.id)}`
        : `The plug of ${labelOf(active.id)} goes into ${labelOf(letGo.current)}`,
    onDragCancel: ({ active }) => `The plug stays in ${labelOf(active.id)}`,
  };
};

/** Within it the plug in one inlet is moved to another by drag. By keys there is a list for it. */
export function PlugDrag({
  rows,
  onMove,
  children,
}: {
  readonly rows: readonly InletRow[];
  readonly onMove: ((fromInletId: string, toInletId: string) => void) | undefined;
  readonly children: ReactNode;
}) {
  const letGo = useRef<UniqueIdentifier | null>(null);
  const sensors = useSensors(useSensor(PromptMouse, byMouse), useSensor(PromptFinger, byFinger));
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={pointerWithin}
      accessibility={{ announcements: announcementsOf(rows, letGo), screenReaderInstructions: { draggable: '' } }}
      onDragEnd={(end) => {
        letGo.current = letGoIn(end);
        if (letGo.current !== null) onMove?.(String(end.active.id), String(letGo.current));
      }}
    >
      {children}
    </DndContext>
  );
}

interface InHand {
  readonly from: string;
  readonly x: number;
  readonly y: number;
}

/** The plug in hand, drawn where the pointer is. */
export function PlugInHand({
  svg,
  height,
  yOfInlet,
}: {
  readonly svg: RefObject<SVGSVGElement | null>;
  readonly height: number;
  readonly yOfInlet: (inletId: string) => number;
}) {
  const [box, setBox] = useState<DOMRect | null>(null);
  const [inHand, setInHand] = useState<InHand | null>(null);
  const follow = ({ active, activatorEvent, delta }: DragMoveEvent) => {
    const begun = getEventCoordinates(activatorEvent);
    if (box === null || begun === null) return;
    // How far it went has what was scrolled meanwhile in it, and so is measured from where the drawing was.
    setInHand({
      from: String(active.id),
      x: ((begun.x + delta.x - box.left) / box.width) * width,
      y: ((begun.y + delta.y - box.top) / box.height) * height,
    });
  };
  useDndMonitor({
    onDragStart: () => setBox(svg.current?.getBoundingClientRect() ?? null),
    onDragMove: follow,
    onDragEnd: () => setInHand(null),
    onDragCancel: () => setInHand(null),
  });
  return inHand === null ? null : <DragShape from={yOfInlet(inHand.from)} x={inHand.x} y={inHand.y} />;
}
