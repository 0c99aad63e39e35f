import { useState } from 'react';
import { Button, Input, Popconfirm, QRCode } from 'antd';
import type { Device, Enrolment } from '@fairwatt/contract';
import { problemOf } from '../app/api.ts';
import { useAskForDeviceMutation, useDevicesQuery, useEndDeviceMutation, useNetworkQuery } from './people-api.ts';
import { dayAndTime } from '../controls/clock.ts';
import { Sheet, type SheetColumn } from '../controls/sheet.tsx';
import styles from './access.module.css';

/** The code is shown whole: it is scanned from here. */
const intoView = (shown: HTMLElement | null) => shown?.scrollIntoView({ block: 'nearest' });

/** Browsers on which a PIN is enough; a new one is enrolled by a code that this screen shows. */
export function DevicesBlock() {
  const devices = useDevicesQuery();
  const [ask, { isLoading }] = useAskForDeviceMutation();
  const [end] = useEndDeviceMutation();
  // A phone does not reach this machine by the name that this machine has for itself.
  const origin = useNetworkQuery().data?.urls[0] ?? location.origin;
  const [name, setName] = useState('');
  const [told, setTold] = useState<string | null>(null);
  const [enrolment, setEnrolment] = useState<Enrolment | null>(null);
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
    setEnrolment(answer.data);
  }
  const columns: readonly SheetColumn<Device>[] = [
    { head: 'Device', names: true, cell: ({ name: called }) => called },
    { head: 'Enrolled by', cell: ({ enrolledBy }) => enrolledBy },
    {
      head: 'Since',
      cell: ({ enrolledAt }) =>
        enrolledAt === null ? <span className="quiet">waits for its code</span> : dayAndTime(enrolledAt),
    },
    { head: 'Last seen', cell: ({ seenAt }) => (seenAt === null ? '' : dayAndTime(seenAt)) },
    {
      head: <span className="visually-hidden">What to do</span>,
      cell: ({ id, name: called }) => (
        <span className={styles['acts']}>
          <Popconfirm
            title={`End ${called}?`}
            description="It is enrolled anew before a PIN is enough on it again."
            okText="End it"
            cancelText="Keep it"
            onConfirm={() => void end(id)}
          >
            <Button>End it</Button>
          </Popconfirm>
        </span>
      ),
    },
  ];
  return (
    <section className="block" aria-label="Devices">
      <span className="label">Devices</span>
      <p className="quiet">
        On these a PIN is enough. A device that is lost is ended here, and everybody signed in on it is out at once.
      </p>
      {devices.data?.length === 0 ? (
        <p>No device is enrolled.</p>
      ) : (
        <Sheet
          label="Devices"
          rows={devices.data ?? []}
          rowKey={({ id }) => id}
          columns={columns}
          empty="No device is enrolled: a PIN is taken nowhere yet."
        />
      )}
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
        <Button htmlType="submit" loading={isLoading}>
          Enrol a device
        </Button>
      </form>
      {told !== null && (
        <div className="error-text" role="alert">
          {told}
        </div>
      )}
      {enrolment !== null && (
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
            <p className={`fig ${styles['code'] ?? ''}`}>{enrolment.code}</p>
            <p className="quiet">
              {origin}/enrol, once, until {dayAndTime(enrolment.until)}.
            </p>
            <Button onClick={() => setEnrolment(null)}>Done</Button>
          </div>
        </div>
      )}
    </section>
  );
}
