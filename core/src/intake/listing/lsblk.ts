import { nothingListed, type DriveMake, type Listed, type ListedDrive } from './listed.ts';
import { bytesOf, deviceOf, fieldsOf, listOf, plainName, serialOf, type Fields } from './plain.ts';

const isYes = (value: unknown): boolean => value === true || value === '1' || value === 1;

function makeOf(device: Fields, name: string): DriveMake | null {
  if (device['type'] === 'rom') return 'optical';
  if (name.startsWith('nvme') || device['tran'] === 'nvme') return 'card';
  if (device['rota'] === undefined || device['rota'] === null) return null;
  return isYes(device['rota']) ? 'spinning' : 'solid';
}

/** `64424509440`, or with a unit as without `-b`: `1.8T`. */
function sizeOf(value: unknown): number | null {
  const found = typeof value === 'string' ? /^(\d+(?:[.,]\d+)?)\s*([KMGTP])?$/.exec(value.trim()) : null;
  if (found === null) return bytesOf(value);
  const power = found[2] === undefined ? 0 : 'KMGTP'.indexOf(found[2]) + 1;
  return bytesOf(Number(found[1]?.replace(',', '.')) * 1024 ** power);
}

function driveOf(value: unknown): ListedDrive | null {
  const device = fieldsOf(value);
  if (device === null || (device['type'] !== 'disk' && device['type'] !== 'rom')) return null;
  const name = deviceOf(device['name']) ?? deviceOf(device['kname']);
  // Outside drives take their power from their own lead; those of memory or of a host machine take none.
  const outside = /^(?:usb|iscsi|fc|mmc|spi)$/.test(plainName(device['tran'])) || isYes(device['hotplug-usb']);
  if (name === null || outside || /^(?:loop|ram|zram|dm|md|nbd|vd|xvd|fd|mmcblk)/.test(name)) return null;
  return {
    name: plainName(device['model']),
    device: name,
    serial: serialOf(device['serial']),
    make: makeOf(device, name),
    bytes: sizeOf(device['size']),
    hours: null,
    starts: null,
    powerLosses: null,
  };
}

/** `lsblk -J -O`: every block device with its transport and whether it turns. */
export const readLsblk = (document: unknown): Listed => ({
  ...nothingListed,
  drives: listOf(fieldsOf(document)?.['blockdevices']).flatMap((device) => driveOf(device) ?? []),
});
