import { nothingListed, type DriveMake, type Listed } from './listed.ts';
import { bytesOf, countOf, deviceOf, fieldsOf, listOf, plainName, serialOf, type Fields } from './plain.ts';

function makeOf(document: Fields, protocol: string): DriveMake | null {
  if (/^nvme$/i.test(protocol)) return 'card';
  const rate = document['rotation_rate'];
  if (rate === 0) return 'solid';
  const inches = plainName(fieldsOf(document['form_factor'])?.['name']);
  if (typeof rate !== 'number') return null;
  return /^3\.5/.test(inches) ? 'spinning-35' : /^2\.5/.test(inches) ? 'spinning-25' : 'spinning';
}

/** Attributes of a drive that count how often its power went before it was told, by number (ATA practice). */
const lossAttributes = [174, 192];

/** The raw figure of the first attribute that the drive has. */
function attribute(document: Fields, ids: readonly number[]): number | null {
  const table = listOf(fieldsOf(document['ata_smart_attributes'])?.['table']).map(fieldsOf);
  const found = ids.map((id) => table.find((row) => row?.['id'] === id)).find((row) => row != null);
  return found == null ? null : countOf(fieldsOf(found['raw'])?.['value'], 1e9);
}

/** `smartctl --json -a`: what one drive says of itself. */
export function readSmartctl(document: unknown): Listed {
  const fields = fieldsOf(document) ?? {};
  const device = fieldsOf(fields['device']) ?? {};
  const health = fieldsOf(fields['nvme_smart_health_information_log']) ?? {};
  const name = plainName(fields['model_name']);
  const protocol = plainName(device['protocol']);
  // A drive in an outside case is asked through its bridge.
  if (/usb|sntasmedia|sntjmicron|sntrealtek/i.test(plainName(device['type'])) || (name === '' && protocol === ''))
    return nothingListed;
  return {
    ...nothingListed,
    drives: [
      {
        name,
        device: deviceOf(device['name']),
        serial: serialOf(fields['serial_number']),
        make: makeOf(fields, protocol),
        bytes: bytesOf(fieldsOf(fields['user_capacity'])?.['bytes']),
        hours: countOf(fieldsOf(fields['power_on_time'])?.['hours'], 1e6),
        starts: countOf(fields['power_cycle_count'], 1e8) ?? attribute(fields, [12, 4]),
        powerLosses: countOf(health['unsafe_shutdowns'], 1e8) ?? attribute(fields, lossAttributes),
      },
    ],
  };
}
