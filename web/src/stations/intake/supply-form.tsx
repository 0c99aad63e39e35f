import { Button, Checkbox } from 'antd';
import {
  emptyLabel,
  grades,
  labelProblems,
  mainsSelectors,
  problemOfLabel,
  shapes,
  shapesWithSupply,
  usualShape,
  withRating,
  type PresentSupply,
  type Shape,
  type SupplyLabel,
  type SupplyModel,
} from '@fairwatt/core';
import { FigureField, SelectField } from '../../controls/fields.tsx';
import { Empty } from '../../controls/empty.tsx';
import { useDesk } from '../../job/job-context.ts';
import { useTypedText } from '../../offline/typed-texts.ts';
import { looks } from '../../looks/looks.ts';
import { FromLabelPicture } from './label-picture.tsx';
import { SupplyAge } from './supply-age.tsx';
import { SupplyLimits } from './supply-limits.tsx';
import { SupplyName } from './supply-name.tsx';
import { SupplyOutputs } from './supply-outputs.tsx';
import { signs } from '../../controls/signs.tsx';
import styles from './supply-form.module.css';

/** A supply that came in a case fits its bay. */
function useBay(): (shape: Shape) => void {
  const { job, act } = useDesk();
  return (shape) => {
    const taken = shapesWithSupply(job.sheet, shape);
    if (taken !== job.sheet.shapes) act({ kind: 'edit-sheet', changes: { shapes: taken }, basedOn: job.sheet.version });
  };
}

/** The label of the supply that came with the machine. */
export function SupplyForm() {
  const { job } = useDesk();
  return job.supply === null ? <FirstLabel /> : <Label supply={job.supply} />;
}

/** Nothing is known yet: a name that the shop knows, or the rating. */
function FirstLabel() {
  const { job, act, locked } = useDesk();
  const fits = useBay();
  const [name, setName] = useTypedText(`${job.code}.supply-name`);
  /** Keeps it; what was typed of its name is in it. */
  function put(named: string, label: SupplyLabel): void {
    if (act({ kind: 'put-supply', supply: { name: named, label }, basedOn: 0 }) === null) setName('');
  }
  function take(model: SupplyModel): void {
    put(model.name, model.label);
    fits(model.label.shape);
  }
  return (
    <Empty title="What does the supply's label say?">
      <div className={`${looks.fields} ${styles.first}`}>
        <SupplyName value={name} onName={setName} onModel={take} />
        <FigureField
          label="Rating"
          entry
          patient
          unit="W"
          least={1}
          most={5000}
          value={null}
          disabled={locked}
          onChange={(ratingWatts) => {
            if (ratingWatts === null) return;
            put(name.trim(), { ...emptyLabel, ratingWatts, shape: usualShape[job.sheet.layout] });
          }}
        />
      </div>
      <p className={looks.quiet}>Enter keeps it and opens the rest of the label.</p>
      <div className={styles.picture}>
        <FromLabelPicture fits={fits} />
      </div>
    </Empty>
  );
}

const selectors = mainsSelectors.map((value) => ({
  value,
  label: value === 'none' ? 'none: any mains' : `${value} V`,
}));

/** What kind of supply it is, as its label says. */
function KindFields({
  label,
  put,
  onShape,
}: {
  readonly label: SupplyLabel;
  readonly put: (changes: Partial<SupplyLabel>) => void;
  readonly onShape: (shape: SupplyLabel['shape']) => void;
}) {
  const { locked } = useDesk();
  return (
    <>
      <FigureField
        label="Rating"
        unit="W"
        least={1}
        most={5000}
        value={label.ratingWatts}
        disabled={locked}
        onChange={(ratingWatts) => {
          if (ratingWatts !== null) put(label.rails.length === 0 ? { ratingWatts } : withRating(label, ratingWatts));
        }}
      />
      <SelectField
        label="Guide"
        value={label.guide}
        disabled={locked}
        options={[
          { value: '2.x', label: '2.x, or nothing said' },
          { value: '3.x', label: '3.x' },
        ]}
        onChange={(guide) => put({ guide })}
      />
      <SelectField
        label="Shape"
        value={label.shape}
        disabled={locked}
        options={shapes.map((value) => ({ value, label: value }))}
        onChange={(shape) => {
          put({ shape });
          onShape(shape);
        }}
      />
      <SelectField
        label="Efficiency grade"
        value={label.grade}
        disabled={locked}
        options={grades.map((value) => ({ value, label: value }))}
        onChange={(grade) => put({ grade })}
      />
      <SelectField
        label="Cables"
        value={label.modular}
        disabled={locked}
        options={[
          { value: 'fixed', label: 'fixed' },
          { value: 'semi', label: 'partly modular' },
          { value: 'full', label: 'modular' },
        ]}
        onChange={(modular) => put({ modular })}
      />
    </>
  );
}

/** The danger of a wrong selector, until it is made safe. */
function SelectorDanger() {
  const { view } = useDesk();
  return (
    <>
      {view.interlocks
        .filter(({ danger, madeSafe }) => danger.id === 'selector' && madeSafe === null)
        .map(({ danger }) => (
          <p key={danger.id} className={looks.caution} role="alert">
            <span>
              {danger.title}. {danger.why} {danger.first.join(' ')}
            </span>
          </p>
        ))}
    </>
  );
}

/** What on the label does not go together. */
function LabelDoubts({ label }: { readonly label: SupplyLabel }) {
  return (
    <>
      {labelProblems(label).map((problem) => (
        <p
          key={problem.code + ('label' in problem ? problem.label : '')}
          className={`${looks.caution} ${styles.problem ?? ''}`}
          role="status"
        >
          {problemOfLabel(problem)}
        </p>
      ))}
    </>
  );
}

function Label({ supply }: { readonly supply: PresentSupply }) {
  const { act, locked, offerUndo } = useDesk();
  const fits = useBay();
  const { version, ...stands } = supply;
  const putWhole = (changes: Partial<typeof stands>) =>
    act({ kind: 'put-supply', supply: { ...stands, ...changes }, basedOn: version });
  const put = (changes: { name?: string; label?: Partial<SupplyLabel> }) =>
    putWhole({ name: changes.name ?? supply.name, label: { ...supply.label, ...changes.label } });
  const { label } = supply;
  return (
    <>
      <div className={styles.again}>
        <FromLabelPicture fits={fits} />
      </div>
      <div className={`${looks.fields} ${looks.byThree}`}>
        <SupplyName
          value={supply.name}
          onName={(name) => put({ name })}
          onModel={(model) => {
            put({ name: model.name, label: model.label });
            fits(model.label.shape);
          }}
        />
        <KindFields label={label} put={(changes) => put({ label: changes })} onShape={fits} />
        <SelectField
          label="Voltage selector, as it came"
          value={supply.selector ?? ''}
          disabled={locked}
          options={[{ value: '' as const, label: 'nobody looked' }, ...selectors]}
          onChange={(selector) => putWhole({ selector: selector === '' ? undefined : selector })}
        />
        <SupplyAge />
      </div>
      <SelectorDanger />
      <div className={`${looks.columns} ${looks.wellBelow}`}>
        <div>
          <SupplyOutputs label={label} put={(changes) => put({ label: changes })} locked={locked} />
        </div>
        <div>
          <SupplyLimits label={label} put={(changes) => put({ label: changes })} locked={locked} />
          <Checkbox
            className={`${looks.tick} ${styles.contact}`}
            checked={label.has16Pin}
            disabled={locked}
            onChange={(event) => put({ label: { has16Pin: event.target.checked } })}
          >
            has a 16-pin card connector
          </Checkbox>
        </div>
      </div>
      <LabelDoubts label={label} />
      <Button
        icon={signs.remove}
        type="link"
        className={looks.below}
        disabled={locked}
        onClick={() => {
          if (act({ kind: 'drop-supply', basedOn: version }) === null) offerUndo('The supply is taken out.');
        }}
      >
        Take the supply out
      </Button>
    </>
  );
}
