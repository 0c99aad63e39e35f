import { AutoComplete } from 'antd';
import type { SupplyModel } from '@fairwatt/core';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';

/** Long lists are narrowed by typing on. */
const mostShown = 40;

const matching = (supplies: readonly SupplyModel[], typed: string): readonly SupplyModel[] => {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  return supplies.filter(({ name }) => words.every((word) => name.toLowerCase().includes(word))).slice(0, mostShown);
};

/** The supply's name: typed as it stands there, or one of the shop's by some letters of it, which brings its label. */
export function SupplyName({
  value,
  onName,
  onModel,
}: {
  readonly value: string;
  readonly onName: (name: string) => void;
  readonly onModel: (model: SupplyModel) => void;
}) {
  const { shop, locked } = useDesk();
  return (
    <label className={looks.field}>
      <span className={looks.name}>Name on the label</span>
      <AutoComplete
        aria-label="Name on the label"
        placeholder="Some letters find the shop’s"
        value={value}
        disabled={locked}
        maxLength={80}
        popupMatchSelectWidth={false}
        onChange={(name: string) => onName(name)}
        onSelect={(name: string) => {
          const model = shop.supplies.find((item) => item.name === name);
          if (model !== undefined) onModel(model);
        }}
        options={
          value.trim().length < 2
            ? []
            : matching(shop.supplies, value).map(({ id, name, label }) => ({
                key: id,
                value: name,
                label: `${name} · ${label.ratingWatts} W ${label.shape}`,
              }))
        }
      />
    </label>
  );
}
