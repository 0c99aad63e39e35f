import { useMemo } from 'react';
import { Link } from 'react-router';
import {
  boundToBe,
  allowedAdapters,
  explainOpen,
  kitCableText,
  openBecauseText,
  ownPlugText,
  plugServes,
  spareId,
  sparesFor,
  sparesToProbe,
  type InletRow,
} from '@fairwatt/core';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';

/** Why an inlet has no cable, and the least that would serve it. */
export function WhyOpen({ row }: { readonly row: InletRow }) {
  const { view, shop, inletLabel } = useDesk();
  const { cabling, chosen } = view;
  const because = useMemo(() => {
    if (cabling.plan === null || cabling.kit === null || chosen === null) return null;
    const { choosing } = shop.settings;
    return (
      explainOpen(
        cabling.kit,
        cabling.inlets,
        cabling.rules,
        cabling.plan,
        {
          spares: choosing.spareCables ? [] : sparesFor(shop.bags, chosen.id),
          adapters: choosing.adapters ? [] : allowedAdapters(shop.bags),
        },
        row.inletId,
      )[0] ?? null
    );
  }, [cabling, chosen, shop, row.inletId]);
  const pieceName = (id: string) => {
    const bag =
      shop.bags.cables.find((cable) => cable.id === (spareId(id) ?? id)) ??
      shop.bags.adapters.find((adapter) => adapter.id === id);
    const own = chosen?.kit.cables.find((cable) => cable.id === id);
    return bag?.label ?? (own === undefined ? id : kitCableText(own));
  };
  const kindOf = (id: string) =>
    boundToBe(
      cabling.inlets.find((inlet) => inlet.id === id),
      `inlet ${id}`,
    ).kind;
  const told = because === null ? null : openBecauseText(because, kindOf, inletLabel, pieceName);
  const probe = chosen === null ? [] : sparesToProbe(shop.bags, chosen.id, (plug) => plugServes(plug, row.kind));
  return (
    <div data-why-open>
      {told !== null && (
        <>
          <p className={looks.errorText}>{told.why}</p>
          <p>{told.remedy}</p>
        </>
      )}
      {chosen !== null && probe.length > 0 && (
        <p>
          In the bags:{' '}
          {probe.slice(0, 3).map((cable, index) => (
            <span key={cable.id}>
              {index > 0 ? ', ' : ''}
              <Link to={`/cable-bags?on=${chosen.id}&cable=${cable.id}`}>{cable.label}</Link>
            </span>
          ))}{' '}
          {probe.length === 1 ? 'has' : 'have'} such a plug, not proved on this supply. Probe it first.
        </p>
      )}
      {row.kind === 'main-own' && <p>{ownPlugText(row.label)}</p>}
      <p className={looks.quiet}>
        {row.optional
          ? 'Ordinary use does without it. Sign it off at Hand over, or find a cable.'
          : 'Nothing may be closed over it without a signed reason.'}
      </p>
    </div>
  );
}
