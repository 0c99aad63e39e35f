import { Button } from 'antd';
import { useSearchParams } from 'react-router';
import { connectorOf, connectors, matching, type Feature, type Seen } from '@fairwatt/core';
import { Choice } from '../controls/choice.tsx';
import { looks } from '../looks/looks.ts';
import { ConnectorCard } from './connector-card.tsx';
import { FindIt } from './find-it.tsx';
import { OftenConfused } from './often-confused.tsx';
import { features } from './words.ts';
import { signs } from '../controls/signs.tsx';
import styles from './guide.module.css';

const ways = [
  ['find', 'Find it'],
  ['pairs', 'Often confused'],
] as const;

/** What was answered stands in the address, so that Back takes one answer back; what makes no sense is not taken. */
function readSeen(params: URLSearchParams): Seen {
  return features.reduce<Seen>((seen, feature) => {
    const typed = params.get(feature);
    const value = connectors
      .map(({ looks }) => looks[feature])
      .find((known) => known != null && String(known) === typed);
    if (value == null) return seen;
    const next: Seen = { ...seen, [feature]: value };
    return matching(connectors, next).length === 0 ? seen : next;
  }, {});
}

/** What is this plug? Found by what one sees, or picked from what is often confused. */
export default function GuidePage() {
  const [params, setParams] = useSearchParams();
  const way = ways.find(([id]) => id === params.get('way'))?.[0] ?? 'find';
  const shown = connectorOf(params.get('show') ?? '');
  const job = params.get('job');
  const passed = features.filter((feature) => (params.get('unseen') ?? '').split(' ').includes(feature));
  const seen = readSeen(params);

  /** The address with some of its parts changed; an empty one is taken out. */
  function changed(changes: Readonly<Record<string, string>>): URLSearchParams {
    const next = new URLSearchParams(params);
    for (const [key, value] of Object.entries(changes))
      if (value === '') next.delete(key);
      else next.set(key, value);
    return next;
  }
  const go = (changes: Readonly<Record<string, string>>) => setParams(changed(changes));
  const addressOf = (id: string) => `/guide?${changed({ show: id, way: '' }).toString()}`;
  const answer = (feature: Feature, value: string | number) => {
    const left = matching(connectors, { ...seen, [feature]: value });
    const [only] = left;
    go({ [feature]: String(value), show: left.length === 1 && only !== undefined ? only.id : '' });
  };

  return (
    <div className={`${looks.page} ${styles.guide ?? ''}`}>
      <div className={looks.pageHead}>
        <h1>What is this plug?</h1>
        <Choice
          label="Way through the guide"
          value={way}
          options={ways.map(([value, label]) => ({ value, label }))}
          onPick={(picked) => go({ way: picked === 'find' ? '' : picked, show: '' })}
        />
        {(Object.keys(seen).length > 0 || shown !== undefined) && (
          <Button icon={signs.again} onClick={() => setParams(job === null ? {} : { job })}>
            Begin anew
          </Button>
        )}
      </div>
      {shown !== undefined ? (
        <>
          <Button icon={signs.previous} type="link" onClick={() => go({ show: '' })}>
            All that it may be
          </Button>
          <ConnectorCard connector={shown} addressOf={addressOf} jobCode={job} />
        </>
      ) : way === 'pairs' ? (
        <OftenConfused addressOf={addressOf} />
      ) : (
        <FindIt
          seen={seen}
          passed={passed}
          onAnswer={answer}
          onPass={(feature) => go({ unseen: [...passed, feature].join(' ') })}
          onTakeBack={(feature) =>
            go({ [feature]: '', unseen: passed.filter((other) => other !== feature).join(' '), show: '' })
          }
          onShow={(id) => go({ show: id })}
        />
      )}
    </div>
  );
}
