import { Button, Checkbox } from 'antd';
import { protectionNames, protectionText, schoolText, wattsText } from '@fairwatt/core';
import { FigureField } from '../../controls/fields.tsx';
import { useDesk, type JobDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';

/** What the client wishes for beside power. */
function Wished() {
  const { job, act, locked } = useDesk();
  const { wants } = job.sheet;
  const edit = (changes: Partial<typeof wants>) =>
    act({ kind: 'edit-sheet', changes: { wants: { ...wants, ...changes } }, basedOn: job.sheet.version });
  return (
    <section aria-label="Wished for">
      <span className={looks.label}>Wished for, beside power</span>
      <div className={`${looks.fields} ${looks.justBelow}`}>
        <FigureField
          label="At most"
          unit="dB"
          optional
          most={80}
          value={wants.noisiestDecibels}
          disabled={locked}
          onChange={(noisiestDecibels) => edit({ noisiestDecibels })}
        />
        <FigureField
          label="Warranty of at least"
          unit="years"
          optional
          most={20}
          value={wants.leastWarrantyYears}
          disabled={locked}
          onChange={(leastWarrantyYears) => edit({ leastWarrantyYears })}
        />
      </div>
      <span className={`${looks.label} ${looks.ownLine} ${looks.wellBelow}`}>It must watch over</span>
      {protectionNames.map((name) => (
        <Checkbox
          key={name}
          className={looks.tick}
          disabled={locked}
          checked={wants.protections.includes(name)}
          onChange={(event) =>
            edit({
              protections: event.target.checked
                ? [...wants.protections, name]
                : wants.protections.filter((other) => other !== name),
            })
          }
        >
          {protectionText[name]}
        </Checkbox>
      ))}
      <Checkbox
        className={looks.tick}
        disabled={locked}
        checked={wants.activeCorrection}
        onChange={(event) => edit({ activeCorrection: event.target.checked })}
      >
        active power factor correction
      </Checkbox>
    </section>
  );
}

/** What the rules take from the machine and the shop, each with its name. */
function takenFrom(
  { job, view, shop }: JobDesk,
  question: NonNullable<JobDesk['question']>,
): readonly [string, string][] {
  const { casing, inlets } = question;
  const optional = inlets.filter((inlet) => inlet.optional).length;
  return [
    ['lasting load', wattsText(view.load.planned.sustainedWatts)],
    ['sizing rule', schoolText[job.sheet.school]],
    ['inlets to serve', `${inlets.length - optional}${optional > 0 ? ` and ${optional} optional` : ''}`],
    ['the case takes', casing.shapes.join(', ')],
    ['room', casing.depthMillimetres === null ? 'not measured' : `${casing.depthMillimetres} mm`],
    ['holes, vent', `${casing.ownHoles ? 'own' : 'standard'}, ${casing.ventClosed ? 'closed' : 'open'}`],
    ['mains', `${shop.settings.mainsVolts} V`],
    ['cards share a cable', shop.settings.choosing.sharedCardCable ? 'where the load allows it' : 'never'],
  ];
}

/**
 * What a replacement is asked for beside power: noise, warranty, protections; and what the rules take from elsewhere.
 */
export function AskedView() {
  const desk = useDesk();
  if (desk.question === null) return null;
  return (
    <div className={looks.columns}>
      <Wished />
      <section aria-label="From elsewhere">
        <span className={looks.label}>Taken from elsewhere</span>
        <dl className={`${looks.factsList} ${looks.justBelow}`}>
          {takenFrom(desk, desk.question).map(([name, said]) => (
            <div key={name}>
              <dt>{name}</dt>
              <dd>{said}</dd>
            </div>
          ))}
        </dl>
        <p className={looks.below}>
          <Button type="link" onClick={() => desk.goTo('intake')}>
            Case and parts are entered at Intake
          </Button>
          <Button type="link" onClick={() => desk.goTo('load')}>
            sizing at Load
          </Button>
        </p>
      </section>
    </div>
  );
}
