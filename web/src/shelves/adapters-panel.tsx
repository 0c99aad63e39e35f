import { adapterNote, adapterRefusal, adapterRefusalText, plugName, inletName } from '@fairwatt/core';
import type { BagAdapter } from '@fairwatt/contract';
import { useRemoveBagAdapterMutation } from '../app/api.ts';
import { useAppSelector } from '../app/store.ts';
import { Empty } from '../controls/empty.tsx';
import { RemoveButton } from '../controls/remove-button.tsx';
import { Sheet } from '../controls/sheet.tsx';
import { looks } from '../looks/looks.ts';
import { AdapterForm } from './adapter-form.tsx';
import styles from './adapters-panel.module.css';

/** Adapters and extensions that a plan may use, and the ones that never may. */
export function AdaptersPanel({ adapters }: { readonly adapters: readonly BagAdapter[] }) {
  const technician = useAppSelector((state) => state.session.technician);
  const [remove] = useRemoveBagAdapterMutation();
  return (
    <div className={styles.panel}>
      {adapters.length === 0 ? (
        <Empty title="No adapters yet">
          Extensions, and 16-pin adapters of separate 8-pin cables, go here. Drive-to-card adapters and moulded four-pin
          ones are refused.
        </Empty>
      ) : (
        <Sheet
          label="Adapters"
          rows={adapters}
          rowKey={(adapter) => adapter.id}
          rowProps={(adapter) => ({ 'data-adapter': adapter.label })}
          columns={[
            {
              head: 'Label',
              cell: (adapter) => <span className={`${looks.tag} ${looks.small}`}>{adapter.label}</span>,
            },
            { head: 'Takes', cell: (adapter) => inletName[adapter.takes] },
            { head: 'Gives', cell: (adapter) => plugName[adapter.gives] },
            { head: 'Legs', className: looks.num, cell: (adapter) => adapter.legs },
            { head: 'Adds', className: looks.num, cell: (adapter) => `${adapter.addsMillimetres} mm` },
            {
              head: 'Carries',
              className: looks.num,
              cell: (adapter) => (adapter.watts === null ? '-' : `${adapter.watts} W`),
            },
            { head: 'There', className: looks.num, cell: (adapter) => adapter.count },
            { head: 'Place', className: looks.nowrap, cell: (adapter) => adapter.place },
            {
              head: 'Mind',
              width: 280,
              cell: (adapter) => {
                const refusal = adapterRefusal(adapter);
                return refusal === null ? adapterNote(adapter) : adapterRefusalText(refusal);
              },
            },
            {
              head: <span className={looks.visuallyHidden}>Acts</span>,
              cell: (adapter) => (
                <RemoveButton
                  what={adapter.label}
                  text="off the record"
                  disabled={technician === null}
                  onRemove={() => void remove({ id: adapter.id, by: technician ?? '' })}
                />
              ),
            },
          ]}
        />
      )}
      <AdapterForm />
    </div>
  );
}
