import { useState } from 'react';
import { problemOf, useImportShopMutation, useImportSuppliesMutation } from '../app/api.ts';
import { FileButton } from '../controls/file-button.tsx';

/** Reads a shop or supplies file into the shop. What is here already stays as it is. */
export function ShelfImport({ kind }: { readonly kind: 'shop' | 'supplies' }) {
  const [importShop, shopState] = useImportShopMutation();
  const [importSupplies, suppliesState] = useImportSuppliesMutation();
  const [told, setTold] = useState<{ readonly bad: boolean; readonly lines: readonly string[] } | null>(null);
  async function send(text: string): Promise<void> {
    const answer = kind === 'shop' ? await importShop(text) : await importSupplies(text);
    if (answer.error !== undefined) {
      const problem = problemOf(answer.error);
      setTold({ bad: true, lines: [problem.title, ...(problem.errors ?? []).slice(0, 6).map((error) => `${error.path}: ${error.message}`)] });
    } else setTold({ bad: false, lines: ['added' in answer.data ? `${answer.data.added} added, ${answer.data.known} were here already.` : 'Read. What was here already stays as it is.'] });
  }
  return (
    <div style={{ marginLeft: 'auto', textAlign: 'right' }}>
      <FileButton label={kind === 'shop' ? 'Import a shop file' : 'Import a supplies file'} name={kind === 'shop' ? 'Shop file' : 'Supplies file'} busy={shopState.isLoading || suppliesState.isLoading} onText={(text) => { void send(text); }} onTooLarge={(line) => setTold({ bad: true, lines: [line] })} />
      {told !== null && <div className={told.bad ? 'error-text' : 'quiet'} role={told.bad ? 'alert' : 'status'}>{told.lines.map((line) => <div key={line}>{line}</div>)}</div>}
    </div>
  );
}
