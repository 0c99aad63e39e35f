import { Link } from 'react-router';
import { connectorOf, lookAlikes } from '@fairwatt/core';
import { GuideDrawing } from './guide-drawing.tsx';
import styles from './guide.module.css';

/** Pairs that people take for one another, side by side. */
export function OftenConfused({ addressOf }: { readonly addressOf: (id: string) => string }) {
  return (
    <ul className={styles.pairs}>
      {lookAlikes.map(({ a, b, tell, harm }) => (
        <li key={`${a} ${b}`}>
          <div className={styles.pair}>
            {[a, b].map((id) => {
              const connector = connectorOf(id);
              return (
                connector !== undefined && (
                  <figure key={id}>
                    <GuideDrawing connector={connector} width={210} />
                    <figcaption>
                      <Link to={addressOf(id)}>{connector.name}</Link>
                    </figcaption>
                  </figure>
                )
              );
            })}
          </div>
          <div>
            <p>{tell}</p>
            <p className={styles.harm}>{harm}</p>
          </div>
        </li>
      ))}
    </ul>
  );
}
