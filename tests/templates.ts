/** Servers' role has the password of the owner here, so that every test knows it. */
export const passwordOf = (url: string): string => decodeURIComponent(new URL(url).password);

/** What a database of a test is copied from: the schema alone, or the demo shop as well. */
export type Template = 'bare' | 'demo';

declare module 'vitest' {
  interface ProvidedContext {
    readonly databaseUrl: string;
    readonly templates: Readonly<Record<Template, string>>;
  }
}
