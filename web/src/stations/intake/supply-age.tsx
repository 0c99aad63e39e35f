import { useState } from 'react';
import { Input } from 'antd';
import { readDate, yearsSince } from '@fairwatt/core';
import { today } from '../../controls/clock.ts';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';

/** The age of the supply: in years, or the date as it stands on the label. */
export function SupplyAge() {
  const { job, act, locked } = useDesk();
  const { sheet } = job;
  const [typed, setTyped] = useState<string | null>(null);
  const text = typed ?? (sheet.supplyYears === null ? '' : String(sheet.supplyYears));
  const read = text === '' ? null : ageOf(text, today());

  function take(): void {
    if (typed === null || (typed !== '' && read === null)) return;
    setTyped(null);
    if (read !== sheet.supplyYears) act({ kind: 'edit-sheet', changes: { supplyYears: read }, basedOn: sheet.version });
  }

  const wrong = typed !== null && typed !== '' && read === null;
  return (
    <label className={looks.field}>
      <span className={looks.name}>Age in years, or the date on its label</span>
      <Input
        aria-label="Age of the supply, or the date on its label"
        aria-invalid={wrong}
        aria-describedby="supply-age-read"
        value={text}
        maxLength={20}
        placeholder="7, or 2019-05, 05/2019, 2019 W21"
        disabled={locked}
        status={wrong ? 'error' : ''}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={take}
        onKeyDown={(event) => {
          if (event.key === 'Enter') take();
        }}
      />
      <span id="supply-age-read" className={wrong ? looks.errorText : looks.quiet}>
        {wrong
          ? 'Neither years nor a plain date: a code of the maker’s own is looked up in its sheet'
          : typed !== null && read !== null
            ? `${read} years`
            : ''}
      </span>
    </label>
  );
}

/** Years, where a number up to 60 stands there; else by a date. */
function ageOf(text: string, day: string): number | null {
  const number = Number(text.trim().replace(',', '.'));
  if (text.trim() !== '' && Number.isFinite(number) && number >= 0 && number <= 60) return number;
  const date = readDate(text, day);
  return date === null ? null : yearsSince(date, day);
}
