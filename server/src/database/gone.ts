/** PostgreSQL's and the socket's codes for a database that is not there just now. */
const gone = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  '57P01',
  '57P02',
  '57P03',
  '08006',
  '08001',
  '08003',
  '53300',
  // A standby, which takes no writes: the one that does is looked for.
  '25006',
]);
export function databaseIsGone(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  const code = 'code' in error ? String(error.code) : '';
  return (
    gone.has(code) ||
    /timeout exceeded when trying to connect|Connection terminated|not queryable|Connection ended/.test(
      error.message,
    ) ||
    ('errors' in error && Array.isArray(error.errors) && error.errors.some(databaseIsGone))
  );
}
