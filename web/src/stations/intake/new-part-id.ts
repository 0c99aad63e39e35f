/** An identifier for a new part of a job. */
export const newPartId = (): string => `p-${crypto.randomUUID().slice(0, 8)}`;
