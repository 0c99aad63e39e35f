import pg from 'pg';

/** How many jobs a database holds; null where there is no such database or it is not one of ours. */
export async function countJobs(url: string): Promise<number | null> {
  const client = new pg.Client({ connectionString: url });
  try {
    await client.connect();
    const { rows } = await client.query<{ count: string }>('select count(*) as count from job');
    return Number(rows[0]?.count ?? 0);
  } catch (error) {
    const code = error instanceof Error && 'code' in error ? error.code : null;
    if (code === '3D000' || code === '42P01') return null;
    throw error;
  } finally {
    await client.end().catch(() => undefined);
  }
}
