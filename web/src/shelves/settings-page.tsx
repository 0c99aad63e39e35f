import { Link } from 'react-router';
import { useState } from 'react';
import type { ShopSettings } from '@fairwatt/core';
import { problemOf, useChangeSettingsMutation, useShopQuery } from '../app/api.ts';
import { useMay } from '../access/use-may.ts';
import { useAppSelector } from '../app/store.ts';
import { Empty } from '../controls/empty.tsx';
import { TwoStates } from '../controls/two-states.tsx';
import { Waiting } from '../controls/waiting.tsx';
import { looks } from '../looks/looks.ts';
import { LabelPrinterBlock } from './settings/label-printer-block.tsx';
import { BenchBlock, ChoosingBlock, JudgementBlock, RunningCostBlock } from './settings/settings-blocks.tsx';

/**
 * The shop's settings: what the bench has and may do, when a finding is offered, how supplies are sized. Owners change
 * them.
 */
export default function SettingsPage() {
  const shop = useShopQuery();
  const owner = useMay('own');
  const technician = useAppSelector((state) => state.session.technician);
  const [change, changing] = useChangeSettingsMutation();
  const [told, setTold] = useState<string | null>(null);
  const [conflict, setConflict] = useState<ShopSettings | null>(null);
  if (shop.data === undefined)
    return (
      <div className={looks.page}>
        {shop.isError ? <Empty title={problemOf(shop.error).title} /> : <Waiting>Fetching the settings …</Waiting>}
      </div>
    );
  const { settings, settingsVersion } = shop.data;
  async function save(changes: Partial<ShopSettings>): Promise<void> {
    const answer = await change({
      by: technician ?? '',
      basedOn: settingsVersion,
      settings: { ...settings, ...changes },
    });
    if (answer.error === undefined) {
      setConflict(null);
      setTold(answer.data === null ? 'Kept in this browser; sent when the server is back.' : 'Saved.');
      return;
    }
    const problem = problemOf(answer.error);
    setTold([problem.title, ...(problem.errors ?? []).map((error) => `${error.path}: ${error.message}`)].join('. '));
    if (problem.type === '/problems/stale') setConflict({ ...settings, ...changes });
  }
  const block = { settings, owner, save: (changes: Partial<ShopSettings>) => void save(changes) };
  return (
    <div className={looks.page}>
      <div className={looks.pageHead}>
        <h1>Settings</h1>
        <span className={looks.quiet} role="status">
          {changing.isLoading
            ? 'Saving …'
            : (told ??
              (owner
                ? 'Each change is saved at once.'
                : 'Only an owner changes these; the name at the top right says who works here.'))}
        </span>
        {owner && (
          <span>
            <Link to="/people">People and devices</Link> · <Link to="/health">State of the application</Link>
          </span>
        )}
      </div>
      {conflict !== null && (
        <TwoStates
          what="The settings"
          mine={conflict}
          theirs={settings}
          onMine={() => void save(conflict)}
          onTheirs={() => {
            setConflict(null);
            setTold(null);
          }}
        />
      )}
      <div className={looks.columns}>
        <BenchBlock {...block} />
        <JudgementBlock {...block} />
        <ChoosingBlock {...block} />
        <LabelPrinterBlock owner={owner} technician={technician} />
        <RunningCostBlock {...block} />
      </div>
    </div>
  );
}
