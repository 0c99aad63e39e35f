import { Checkbox } from 'antd';
import { caseLayouts, layoutText, shapes, shapesOfLayout, type SheetChanges } from '@fairwatt/core';
import { FigureField, Keys } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import { ToggleKeys } from '../../controls/toggle-keys.tsx';
import { looks } from '../../looks/looks.ts';
import styles from './case-form.module.css';

/** The supply bay and what came along. */
export function CaseForm() {
  const { job, act, locked } = useDesk();
  const { sheet } = job;
  const edit = (changes: SheetChanges) => {
    act({ kind: 'edit-sheet', changes, basedOn: sheet.version });
  };
  return (
    <>
      <div className={looks.block}>
        <span className={looks.label}>Case</span>
        <Keys
          label="Case"
          value={sheet.layout}
          options={caseLayouts.map((value) => ({ value, label: layoutText[value] }))}
          disabled={locked}
          onPick={(layout) =>
            edit({ layout, shapes: shapesOfLayout(sheet, layout, job.supply === null ? null : job.supply.label.shape) })
          }
        />
      </div>
      <div className={looks.block}>
        <span className={looks.label}>Shapes of supply that its bay takes</span>
        <ToggleKeys
          label="Shapes of supply"
          values={sheet.shapes}
          options={shapes.map((value) => ({ value, label: value }))}
          atLeastOne
          disabled={locked}
          onChange={(taken) => edit({ shapes: taken })}
        />
      </div>
      <div className={`${looks.block} ${styles.narrow}`}>
        <FigureField
          label="Room for the supply, cables bent"
          unit="mm"
          least={50}
          most={600}
          optional
          value={sheet.depthMillimetres}
          disabled={locked}
          onChange={(depthMillimetres) => edit({ depthMillimetres })}
        />
      </div>
      <div className={looks.block}>
        <Checkbox
          className={looks.tick}
          disabled={locked}
          checked={sheet.ownHoles}
          onChange={(event) => edit({ ownHoles: event.target.checked })}
        >
          Maker-built case with mounting holes of its own, not the standard four
        </Checkbox>
        <Checkbox
          className={looks.tick}
          disabled={locked}
          checked={sheet.ventClosed}
          onChange={(event) => edit({ ventClosed: event.target.checked })}
        >
          No opening where the supply's large face lies: a fan there would get no air
        </Checkbox>
      </div>
      <div className={looks.block}>
        <span className={looks.label}>Bag of loose modular cables</span>
        <Keys
          label="Bag of loose modular cables"
          value={sheet.cableBag}
          options={[
            { value: 'came', label: 'Came along', digit: 4 },
            { value: 'missing', label: 'Missing', digit: 5 },
            { value: 'not-modular', label: 'Supply is not modular', digit: 6 },
          ]}
          disabled={locked}
          onPick={(cableBag) => edit({ cableBag })}
        />
      </div>
    </>
  );
}
