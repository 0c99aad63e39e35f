import { Button, Checkbox } from 'antd';
import { protectionNames, protectionText, schoolText, wattsText } from '@fairwatt/core';
import { FigureField } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';

/**
 * What a replacement is asked for beside power: noise, warranty, protections; and what the rules take from elsewhere.
 */
export function AskedView() {
  const { job, view, shop, question, act, locked, goTo } = useDesk();
  const { wants } = job.sheet;
  const edit = (changes: Partial<typeof wants>) =>
    act({ kind: 'edit-sheet', changes: { wants: { ...wants, ...changes } }, basedOn: job.sheet.version });
  if (question === null) return null;
  const { casing } = question;
  return (
    <div className="columns">
      <section aria-label="Wished for">
        <span className="label">Wished for, beside power</span>
        <div className="fields" style={{ marginTop: 6 }}>
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
        <span className="label" style={{ display: 'block', margin: '14px 0 2px' }}>
          It must watch over
        </span>
        {protectionNames.map((name) => (
          <Checkbox
            key={name}
            className="tick"
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
          className="tick"
          disabled={locked}
          checked={wants.activeCorrection}
          onChange={(event) => edit({ activeCorrection: event.target.checked })}
        >
          active power factor correction
        </Checkbox>
      </section>
      <section aria-label="From elsewhere">
        <span className="label">Taken from elsewhere</span>
        <dl className="facts-list" style={{ marginTop: 6 }}>
          <div>
            <dt>lasting load</dt>
            <dd>{wattsText(view.load.planned.sustainedWatts)}</dd>
          </div>
          <div>
            <dt>sizing rule</dt>
            <dd>{schoolText[job.sheet.school]}</dd>
          </div>
          <div>
            <dt>inlets to serve</dt>
            <dd>
              {question.inlets.filter((inlet) => !inlet.optional).length}
              {question.inlets.some((inlet) => inlet.optional)
                ? ` and ${question.inlets.filter((inlet) => inlet.optional).length} optional`
                : ''}
            </dd>
          </div>
          <div>
            <dt>the case takes</dt>
            <dd>{casing.shapes.join(', ')}</dd>
          </div>
          <div>
            <dt>room</dt>
            <dd>{casing.depthMillimetres === null ? 'not measured' : `${casing.depthMillimetres} mm`}</dd>
          </div>
          <div>
            <dt>holes, vent</dt>
            <dd>
              {casing.ownHoles ? 'own' : 'standard'}, {casing.ventClosed ? 'closed' : 'open'}
            </dd>
          </div>
          <div>
            <dt>mains</dt>
            <dd>{shop.settings.mainsVolts} V</dd>
          </div>
          <div>
            <dt>cards share a cable</dt>
            <dd>{shop.settings.choosing.sharedCardCable ? 'where the load allows it' : 'never'}</dd>
          </div>
        </dl>
        <p style={{ marginTop: 10 }}>
          <Button type="link" onClick={() => goTo('intake')}>
            Case and parts are entered at Intake
          </Button>
          <Button type="link" onClick={() => goTo('load')}>
            sizing at Load
          </Button>
        </p>
      </section>
    </div>
  );
}
