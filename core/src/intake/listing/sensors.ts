import { nothingListed, type Listed, type ListedLimit, type ListedVolts } from './listed.ts';
import { fieldsOf, type Fields } from './plain.ts';
import type { RailName } from '../../standards/index.ts';

/** Names that drivers give to what a board measures of its supply; one without a rail's name is nobody's. */
function railOf(label: string): RailName | null {
  const name = label.replace(/\s+/g, '').toLowerCase();
  if (/^\+?12v(?:in)?$/.test(name)) return '+12';
  if (/^\+?5v(?:in|cc)?$/.test(name)) return '+5';
  if (/^\+?3[.,]3v(?:in|cc)?$/.test(name)) return '+3.3';
  if (/^-12v$/.test(name)) return '-12';
  return /^(?:\+?5vsb|\+?5v_?standby)$/.test(name) ? '+5sb' : null;
}

const nominal: Readonly<Record<RailName, number>> = { '+12': 12, '+5': 5, '+3.3': 3.3, '-12': -12, '+5sb': 5 };

/** The first figure of a feature whose key ends so. */
function figureOf(feature: Fields, ending: string): number | null {
  const found = Object.entries(feature).find(([key]) => key.endsWith(ending))?.[1];
  return typeof found === 'number' && Number.isFinite(found) ? found : null;
}

/** A chip on the bus by its address: `name-pci-0100` is 0000:01:00.0 (bus, then device and function in one byte). */
function addressOfChip(chip: string): string | null {
  const found = /-pci-([0-9a-f]{2})([0-9a-f]{2})$/i.exec(chip);
  if (found === null) return null;
  const place = parseInt(found[2] ?? '', 16);
  const device = (place >> 3).toString(16).padStart(2, '0');
  return `0000:${found[1]?.toLowerCase()}:${device}.${place & 7}`;
}

/**
 * `sensors -j`: the board's own sensors. A voltage counts as a rail's only under that rail's name and within a third of
 * it, since boards without their table show figures of any divider.
 */
export function readSensors(document: unknown): Listed {
  const volts: ListedVolts[] = [];
  const limits: ListedLimit[] = [];
  for (const [chip, value] of Object.entries(fieldsOf(document) ?? {}))
    for (const [label, inner] of Object.entries(fieldsOf(value) ?? {})) {
      const feature = fieldsOf(inner);
      if (feature === null) continue;
      const rail = railOf(label);
      const read = figureOf(feature, '_input');
      const near = rail !== null && read !== null && Math.abs(read - nominal[rail]) <= Math.abs(nominal[rail]) / 3;
      if (near && Object.keys(feature).some((key) => /^in\d+_input$/.test(key))) volts.push({ rail, volts: read });
      const cap = figureOf(feature, '_cap');
      const address = addressOfChip(chip);
      if (cap !== null && cap > 0 && cap < 2000 && address !== null)
        limits.push({ of: address, watts: Math.round(cap) });
    }
  return { ...nothingListed, volts, limits };
}
