import { Link } from 'react-router';
import { connectorOf, type Connector } from '@fairwatt/core';
import { Sheet } from '../controls/sheet.tsx';
import { looks } from '../looks/looks.ts';
import { GuideDrawing } from './guide-drawing.tsx';
import styles from './guide.module.css';

/** Everything about one connector: what it carries, where it goes and never goes, how it comes out and in. */
export function ConnectorCard({
  connector,
  addressOf,
  jobCode,
}: {
  readonly connector: Connector;
  /** The address of another connector of the guide. */
  readonly addressOf: (id: string) => string;
  /** The job from which somebody came. */
  readonly jobCode: string | null;
}) {
  return (
    <article className={styles.card} aria-label={connector.name}>
      <div className={styles.head}>
        <div>
          <h2>{connector.name}</h2>
          <p>{connector.carries}</p>
          <p className={looks.quiet}>Often printed: {connector.printed}</p>
        </div>
        <figure>
          <GuideDrawing connector={connector} width={300} />
          <figcaption className={looks.quiet}>
            {connector.drawing.as === 'face' ? 'from the wires, latch up' : 'as one looks at it'}
          </figcaption>
        </figure>
      </div>
      {connector.never.map(({ id, into, happens }) => (
        <p key={into} className={looks.caution}>
          <span>
            <strong>Never into {into}</strong>
            {id !== null && connectorOf(id) !== undefined && id !== connector.id && (
              <>
                {' '}
                (<Link to={addressOf(id)}>{connectorOf(id)?.name}</Link>)
              </>
            )}
            : {happens}.
          </span>
        </p>
      ))}
      <dl className={styles.facts}>
        <dt>Goes into</dt>
        <dd>{connector.goesInto}</dd>
        <dt>Out</dt>
        <dd>{connector.out}</dd>
        <dt>In</dt>
        <dd>{connector.in}</dd>
      </dl>
      {connector.contacts.length > 0 && (
        <Sheet
          label="What its contacts carry"
          rows={connector.contacts}
          rowKey={({ pin }) => pin}
          columns={[
            { head: 'Contact', names: true, width: 120, cell: ({ pin }) => pin },
            { head: 'Carries', cell: ({ carries }) => carries },
          ]}
        />
      )}
      {jobCode !== null && connector.recordAs !== null && (
        <p>
          <Link to={`/jobs/${encodeURIComponent(jobCode)}/cables?way=was&plug=${connector.recordAs}`}>
            Record it in {jobCode}
          </Link>
        </p>
      )}
      {jobCode !== null && (connector.group === 'header' || connector.group === 'data') && (
        <p>
          <Link to={`/jobs/${encodeURIComponent(jobCode)}/cables?way=leads`}>Note it among the leads of {jobCode}</Link>
        </p>
      )}
    </article>
  );
}
