import { useState } from 'react';
import { Button, Input, Popconfirm, QRCode } from 'antd';
import type { Device, Enrolment } from '@fairwatt/contract';
import { problemOf } from '../app/api.ts';
import { looks } from '../looks/looks.ts';
import { useAskForDeviceMutation, useDevicesQuery, useEndDeviceMutation, useNetworkQuery } from './people-api.ts';
import { dayAndTime } from '../controls/clock.ts';
import { Sheet, type SheetColumn } from '../controls/sheet.tsx';
import { signs } from '../controls/signs.tsx';
import styles from './access.module.css';

/** The code is shown whole: it is scanned from here. */
const intoView = (shown: HTMLElement | null) => shown?.scrollIntoView({ block: 'nearest' });

const columnsOf = (end: (id: string) => void): readonly SheetColumn<Device>[] => [
  { head: 'Device', names: true, cell: ({ name }) => name },
  { head: 'Enrolled by', cell: ({ enrolledBy }) => enrolledBy },
  {
    head: 'Since',
    cell: ({ enrolledAt }) =>
      enrolledAt === null ? <span className={looks.quiet}>waits for its code</span> : dayAndTime(enrolledAt),
  },
  { head: 'Last seen', cell: ({ seenAt }) => (seenAt === null ? '' : dayAndTime(seenAt)) },
  {
    head: <span className={looks.visuallyHidden}>What to do</span>,
    cell: ({ id, name }) => (
      <span className={styles['acts']}>
        <Popconfirm
          title={`End ${name}?`}
          description="It is enrolled anew before a PIN is enough on it again."
          okText="End it"
          cancelText="Keep it"
          onConfirm={() => end(id)}
        >
          <Button>End it</Button>
        </Popconfirm>
      </span>
    ),
  },
];

/** The code of a device that is enrolled now, to be scanned or typed there. */
function EnrolmentShown({ enrolment, onDone }: { readonly enrolment: Enrolment; readonly onDone: () => void }) {
  // A phone does not reach this machine by the name that this machine has for itself.
  const origin = useNetworkQuery().data?.urls[0] ?? location.origin;
  return (
    <div ref={intoView} className={styles['enrol']} role="status">
      <QRCode
        value={`${origin}${enrolment.path}`}
        size={168}
        bordered={false}
        type="svg"
        color="#1C2422"
        bgColor="#FFFFFF"
      />
      <div>
        <p>Open this with the device, or its address and the code:</p>
        <p className={`${looks.fig} ${styles['code'] ?? ''}`}>{enrolment.code}</p>
        <p className={looks.quiet}>
          {origin}/enrol, once, until {dayAndTime(enrolment.until)}.
        </p>
        <Button onClick={onDone}>Done</Button>
      </div>
    </div>
  );
}

/** Asks for the code of a new device, which has a name. */
function EnrolForm({ onEnrolment }: { readonly onEnrolment: (enrolment: Enrolment) => void }) {
  const [ask, { isLoading }] = useAskForDeviceMutation();
  const [name, setName] = useState('');
  const [told, setTold] = useState<string | null>(null);
  async function enrol(): Promise<void> {
    if (name.trim() === '') {
      setTold('Call the device something, such as “Phone of the counter”.');
      return;
    }
    const answer = await ask({ name });
    if (answer.data === undefined) {
      setTold(problemOf(answer.error).title);
      return;
    }
    setTold(null);
    setName('');
    onEnrolment(answer.data);
  }
  return (
    <>
      <form
        className={styles['row']}
        onSubmit={(event) => {
          event.preventDefault();
          void enrol();
        }}
      >
        <Input
          aria-label="Name of the new device"
          className={styles['deviceName'] ?? ''}
          value={name}
          maxLength={60}
          placeholder="Such as “Phone of the counter”"
          onChange={(event) => setName(event.target.value)}
        />
        <Button icon={signs.add} htmlType="submit" loading={isLoading}>
          Enrol a device
        </Button>
      </form>
      {told !== null && (
        <div className={looks.errorText} role="alert">
          {told}
        </div>
      )}
    </>
  );
}

/** Browsers on which a PIN is enough; a new one is enrolled by a code that this screen shows. */
export function DevicesBlock() {
  const devices = useDevicesQuery();
  const [end] = useEndDeviceMutation();
  const [enrolment, setEnrolment] = useState<Enrolment | null>(null);
  return (
    <section className={looks.block} aria-label="Devices">
      <span className={looks.label}>Devices</span>
      <p className={looks.quiet}>
        On these a PIN is enough. A device that is lost is ended here, and everybody signed in on it is out at once.
      </p>
      {devices.data?.length === 0 ? (
        <p>No device is enrolled.</p>
      ) : (
        <Sheet
          label="Devices"
          rows={devices.data ?? []}
          rowKey={({ id }) => id}
          columns={columnsOf((id) => void end(id))}
          empty="No device is enrolled: a PIN is taken nowhere yet."
        />
      )}
      <EnrolForm onEnrolment={setEnrolment} />
      {enrolment !== null && <EnrolmentShown enrolment={enrolment} onDone={() => setEnrolment(null)} />}
    </section>
  );
}
