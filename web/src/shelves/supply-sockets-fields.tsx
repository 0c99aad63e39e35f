import { Button, Form } from 'antd';
import { socketKinds } from '@fairwatt/core';
import { DraftPick, DraftText } from '../controls/draft-form.tsx';
import { looks } from '../looks/looks.ts';
import { OutputPick, useTwelveLabels } from './supply-outputs-fields.tsx';
import { signs } from '../controls/signs.tsx';
import styles from './supply-sockets-fields.module.css';

const kinds = socketKinds.map((kind) => ({ value: kind, label: kind }));

/** Limits that several outputs share, and the sockets at the back. */
export function SocketsFields() {
  return (
    <fieldset>
      <legend className={looks.label}>Combined limits, and sockets</legend>
      <LimitFields />
      <SocketList />
    </fieldset>
  );
}

function LimitFields() {
  return (
    <Form.List name="combined">
      {(limits, { add, remove }, { errors }) => (
        <>
          {limits.map(({ key, name }) => (
            <div key={key} className={`${looks.rangeRow} ${styles.sockets}`}>
              <DraftText
                bare
                name={[name, 'labels']}
                label={`Outputs of limit ${name + 1}`}
                maxLength={200}
                placeholder="5V + 3.3V"
              />
              <DraftText bare figure name={[name, 'watts']} label={`Watts of limit ${name + 1}`} />
              <Button
                icon={signs.remove}
                type="link"
                aria-label={`Drop limit ${name + 1}`}
                onClick={() => remove(name)}
              >
                drop
              </Button>
            </div>
          ))}
          <Form.ErrorList errors={errors} />
          <Button icon={signs.add} type="link" onClick={() => add({ labels: '5V + 3.3V', watts: '' })}>
            another limit
          </Button>
        </>
      )}
    </Form.List>
  );
}

function SocketList() {
  const twelve = useTwelveLabels();
  return (
    <Form.List name="sockets">
      {(sockets, { add, remove }, { errors }) => (
        <>
          <div className={styles.editorList}>
            {sockets.map(({ key, name }) => (
              <div key={key} className={`${looks.rangeRow} ${twelve.length > 1 ? styles.ofOutputs : styles.ofOne}`}>
                <DraftText bare name={[name, 'label']} label={`Socket ${name + 1}`} maxLength={20} />
                <DraftPick bare name={[name, 'kind']} label={`Kind of socket ${name + 1}`} options={kinds} />
                {twelve.length > 1 && (
                  <OutputPick name={[name, 'output']} label={`Output behind socket ${name + 1}`} twelve={twelve} />
                )}
                <Button
                  icon={signs.remove}
                  type="link"
                  aria-label={`Drop socket ${name + 1}`}
                  onClick={() => remove(name)}
                >
                  drop
                </Button>
              </div>
            ))}
          </div>
          <Form.ErrorList errors={errors} />
          <Button
            icon={signs.add}
            type="link"
            onClick={() => add({ label: `S${sockets.length + 1}`, kind: 'drive', output: '' })}
          >
            another socket
          </Button>
        </>
      )}
    </Form.List>
  );
}
