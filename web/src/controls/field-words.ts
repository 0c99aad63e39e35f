const fieldNames: Readonly<Record<string, string>> = {
  title: 'Machine',
  client: 'Client',
  words: "In the client's words",
  button: 'Pressing the button',
  alsoTold: 'At other times',
  course: 'How it has gone',
  surroundings: 'Surroundings',
  upgrade: 'Planned upgrade',
  watch: 'What to watch',
  leftInBag: 'Left in the bag',
  reach: 'Reached by',
  serial: 'Serial number or tag',
  fittedSerial: 'Serial number of the fitted supply',
  cameAlong: 'Came along',
  cameAlongNote: 'Came along, in words',
  inCharge: 'In hand of',
  priority: 'Priority',
  promisedOn: 'Promised for',
  usualAs: 'Usual machine',
  oldSupply: 'The old supply',
  oldSupplyNote: 'The old supply, in words',
  oldSupplyDisposed: 'Given to electrical waste',
  bareSupply: 'A supply by itself',
  depthMillimetres: 'Room for the supply',
  machineYears: 'Age of the machine',
  supplyYears: 'Age of the supply',
  outcomeId: 'Answer',
  faultId: 'Fault',
  stepIds: 'Order',
};

/** A field as people read it: by its name on the screen, else its own name in words. */
export function fieldLabel(path: string): string {
  const named = fieldNames[path];
  if (named !== undefined) return named;
  const words = (path.split('.').at(-1) ?? path).replace(/([A-Z])/g, ' $1').toLowerCase();
  return words.charAt(0).toUpperCase() + words.slice(1);
}

/** A value as it stands in a field. */
export function valueText(value: unknown): string {
  if (value === null || value === undefined || value === '') return 'nothing';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'string' || typeof value === 'number') return String(value);
  if (Array.isArray(value)) return value.length === 0 ? 'nothing' : value.map(valueText).join(', ');
  return Object.values(value as Record<string, unknown>)
    .map(valueText)
    .join(' ');
}
