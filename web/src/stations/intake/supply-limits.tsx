import { Button } from 'antd';
import type { SupplyLabel } from '@fairwatt/core';
import { FigureField } from '../../controls/fields.tsx';
import { Sheet } from '../../controls/sheet.tsx';
import { looks } from '../../looks/looks.ts';
import type { PutLabel } from './supply-outputs.tsx';
import { signs } from '../../controls/signs.tsx';
import { goToFirstUnread } from './first-unread.ts';
import styles from './supply-form.module.css';

/** The limits that several outputs of a label share. */
export function SupplyLimits({
  label,
  put,
  locked,
}: {
  readonly label: SupplyLabel;
  readonly put: PutLabel;
  readonly locked: boolean;
}) {
  const unread = label.rails.some(({ usual }) => usual === true)
    ? -1
    : label.combined.findIndex(({ usual }) => usual === true);
  return (
    <>
      <Sheet
        label="Combined limits"
        rows={label.combined}
        rowKey={(limit, index) => index}
        columns={[
          { head: 'Combined limit over', cell: (limit) => limit.labels.join(' + ') },
          {
            head: 'Watts',
            width: 96,
            cell: (limit, index) => (
              <div className={limit.usual === true ? styles.usual : undefined}>
                <FigureField
                  bare
                  label={`Watts of ${limit.labels.join(' and ')}`}
                  value={limit.watts}
                  most={10_000}
                  entry={index === unread}
                  disabled={locked}
                  onEntered={goToFirstUnread}
                  onChange={(watts) => {
                    if (watts !== null)
                      put({
                        combined: label.combined.map((other, position) =>
                          position === index ? { ...other, watts, usual: undefined } : other,
                        ),
                      });
                  }}
                />
              </div>
            ),
          },
          {
            head: <span className={looks.visuallyHidden}>Acts</span>,
            cell: (limit, index) => (
              <Button
                icon={signs.remove}
                type="link"
                disabled={locked}
                onClick={() => put({ combined: label.combined.filter((_, position) => position !== index) })}
              >
                take out
              </Button>
            ),
          },
        ]}
      />
      <div className={`${looks.rowActions} ${looks.below}`}>
        {(['+5 and +3.3', 'all +12'] as const).map((kind) => {
          const labels = label.rails
            .filter((rail) => (kind === 'all +12' ? rail.rail === '+12' : rail.rail === '+5' || rail.rail === '+3.3'))
            .map((rail) => rail.label);
          return (
            <Button
              icon={signs.add}
              key={kind}
              disabled={locked || labels.length < (kind === 'all +12' ? 1 : 2)}
              onClick={() => put({ combined: [...label.combined, { labels, watts: 0 }] })}
            >
              Limit over {kind}
            </Button>
          );
        })}
      </div>
    </>
  );
}
