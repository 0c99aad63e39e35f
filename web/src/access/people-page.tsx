import { Link } from 'react-router';
import { Empty } from '../controls/empty.tsx';
import { Waiting } from '../controls/waiting.tsx';
import { problemOf, useAccessQuery, useShopQuery } from '../app/api.ts';
import { looks } from '../looks/looks.ts';
import { useChangeSigningMutation, usePeopleQuery } from './people-api.ts';
import { AuditTable } from './audit-table.tsx';
import { DevicesBlock } from './devices-block.tsx';
import { NetworkBlock } from './network-block.tsx';
import { PeopleBlock } from './people-block.tsx';
import styles from './access.module.css';
import { SessionsTable } from './sessions-table.tsx';
import { useMay } from './use-may.ts';
import { Button } from 'antd';
import { useState } from 'react';

/** Who works here, what each may do, on which devices a PIN is enough, and what was done about all that. */
export default function PeoplePage() {
  const owner = useMay('own');
  const shop = useShopQuery();
  if (shop.data !== undefined && !owner)
    return (
      <div className={looks.page}>
        <Empty title="People and devices">
          Only an owner looks at them. Owners are{' '}
          {shop.data.technicians
            .filter(({ role }) => role === 'owner')
            .map(({ name }) => name)
            .join(', ') || 'not entered yet'}
          .
        </Empty>
      </div>
    );
  return owner ? <ForTheOwner /> : <Waiting className={looks.page}>Fetching the people …</Waiting>;
}

function ForTheOwner() {
  const people = usePeopleQuery();
  const access = useAccessQuery();
  if (people.data === undefined || access.data === undefined)
    return (
      <div className={looks.page}>
        {people.isError ? <Empty title={problemOf(people.error).title} /> : <Waiting>Fetching the people …</Waiting>}
      </div>
    );
  return (
    <div className={looks.page}>
      <div className={looks.pageHead}>
        <h1>People and devices</h1>
        <Link to="/settings">Back to Settings</Link>
      </div>
      <SigningNotice />
      <PeopleBlock people={people.data} />
      <DevicesBlock />
      {access.data.signing === 'secret' && (
        <section className={looks.block} aria-label="Signed in">
          <span className={looks.label}>Signed in</span>
          <p className={looks.quiet}>
            A session that is ended here is out with its next request; what was typed there is kept.
          </p>
          <SessionsTable of="everybody" />
        </section>
      )}
      <NetworkBlock />
      <AuditTable />
    </div>
  );
}

/** How people sign here, and the way to the other way where it is allowed. */
function SigningNotice() {
  const { data } = useAccessQuery();
  const [change, { isLoading }] = useChangeSigningMutation();
  const [told, setTold] = useState<string | null>(null);
  const picked = data?.signing === 'picked';
  async function turn(): Promise<void> {
    const answer = await change({ signing: picked ? 'secret' : 'picked' });
    setTold(answer.error === undefined ? null : problemOf(answer.error).title);
  }
  return (
    <div className={picked ? looks.notice : styles['said']} role="status">
      <span className={looks.mark}>{picked ? 'Names are picked' : 'People sign in'}</span>
      <span className={looks.fills}>
        {picked
          ? 'Anybody at this machine may pick any name, and only this machine is answered. Give the ' +
            'owner a secret, then let people sign in.'
          : 'Each with a PIN on an enrolled device, or a passphrase anywhere; a session ends after 12 hours.'}
        {told !== null && (
          <span className={looks.errorText} role="alert">
            {' '}
            {told}
          </span>
        )}
      </span>
      <Button loading={isLoading} onClick={() => void turn()}>
        {picked ? 'Let people sign in' : 'A shop of one: pick the name'}
      </Button>
    </div>
  );
}
