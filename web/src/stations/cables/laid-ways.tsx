import { Button, Input } from 'antd';
import { cablesLaid } from '@fairwatt/core';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import styles from './laid-ways.module.css';

/** The way of each cable as it was really laid; the old one is a suggestion, taken only by a press. */
export function LaidWays() {
  const { job, view, act, locked } = useDesk();
  return (
    <ul className={styles.ways} aria-label="The way each cable was laid">
      {cablesLaid(job, view.cabling).map(({ cable, code, inlets, asItWas, laid }) => {
        const lay = (way: string) => act({ kind: 'lay-cable', cable, way, basedOn: laid?.version ?? 0 });
        const way = laid?.way ?? '';
        return (
          <li key={cable}>
            <label>
              <span>
                <strong>{code}</strong> <span className={looks.quiet}>{inlets.join(', ')}</span>
              </span>
              <Input
                aria-label={`Way of ${code} as it was laid`}
                value={way}
                maxLength={300}
                disabled={locked}
                placeholder={asItWas === '' ? 'hole 2, front clip' : `was: ${asItWas}`}
                onChange={(event) => lay(event.target.value)}
              />
            </label>
            {asItWas !== '' && way === '' && (
              <Button type="link" disabled={locked} aria-label={`${code} as before`} onClick={() => lay(asItWas)}>
                as before
              </Button>
            )}
          </li>
        );
      })}
    </ul>
  );
}
