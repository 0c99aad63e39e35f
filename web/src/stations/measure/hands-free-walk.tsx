import { Button } from 'antd';
import {
  nextTouch,
  pinExpectText,
  probeWordText,
  spokenPin,
  spokenTouch,
  touched,
  type CableProbe,
  type ProbedPin,
  type ProbeVerdict,
} from '@fairwatt/core';
import type { NetworkInstrument } from '@fairwatt/contract';
import { HandsFreePanel } from './hands-free.tsx';

/** A probe walk with both hands at the probes. */
export function HandsFreeWalk({
  meter,
  job,
  probe,
  verdict,
  lastPin,
  locked,
  onPut,
  onTakeBack,
  onStop,
}: {
  readonly meter: NetworkInstrument;
  readonly job: string;
  readonly probe: CableProbe;
  readonly verdict: ProbeVerdict;
  /** The pin that was taken last in this walk. */
  readonly lastPin: number | null;
  readonly locked: boolean;
  readonly onPut: (pin: ProbedPin) => void;
  /** The pin is open again. */
  readonly onTakeBack: (pin: number) => void;
  readonly onStop: () => void;
}) {
  const touch = locked ? null : nextTouch(verdict);
  const at = verdict.pins.find((pin) => pin.pin === touch?.pin);
  const last = verdict.pins.find((pin) => pin.pin === lastPin && pin.value !== null);
  const told = last === undefined ? null : spokenPin(last);
  return (
    <HandsFreePanel
      meter={meter}
      job={job}
      touch={touch === null ? null : { key: `${touch.way} ${touch.pin} ${probe.pins.length}`, rail: touch.rail }}
      now={touch === null || touch.way === 'red-on-pin' ? `Pin ${at?.name ?? ''}` : `Black on pin ${at?.name ?? ''}`}
      what={
        touch === null || at === undefined
          ? ''
          : touch.way === 'red-on-pin'
            ? `Red on the pin, black on the supply's ground: ${pinExpectText(at.expects)}`
            : at.expects.kind === 'coded'
              ? `Red clipped to pin ${touch.knownPin}: shows its ${touch.rail} V at ground, nothing where it is open`
              : `Red clipped to pin ${touch.knownPin}: shows its ${touch.rail} V where the pin lies at ground`
      }
      spoken={touch === null || at === undefined ? '' : spokenTouch(touch, at)}
      last={told}
      ended={probeWordText[verdict.word]}
      onTake={(held) => {
        if (touch !== null) onPut(touched(touch, held.volts));
      }}
      onAgain={last === undefined ? null : () => onTakeBack(last.pin)}
      onStop={onStop}
    >
      {touch !== null && (touch.way === 'red-on-pin' || at?.expects.kind === 'coded') && (
        <Button onClick={() => onPut({ pin: touch.pin, value: { kind: 'code', code: 'absent' } })}>
          {touch.way === 'red-on-pin' ? 'Nothing there' : 'Nothing shows: open'}
        </Button>
      )}
    </HandsFreePanel>
  );
}
