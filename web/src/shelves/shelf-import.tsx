import { useState } from 'react';
import { problemOf, useImportShopMutation } from '../app/api.ts';
import { FileButton } from '../controls/file-button.tsx';
import { looks } from '../looks/looks.ts';
import styles from './shelf-import.module.css';

/** Reads a shop file into the shop. What is here already stays as it is. */
export function ShelfImport() {
  const [importShop, state] = useImportShopMutation();
  const [told, setTold] = useState<{ readonly bad: boolean; readonly lines: readonly string[] } | null>(null);
  async function send(text: string): Promise<void> {
    const answer = await importShop(text);
    if (answer.error !== undefined) {
      const problem = problemOf(answer.error);
      setTold({
        bad: true,
        lines: [problem.title, ...(problem.errors ?? []).slice(0, 6).map((error) => `${error.path}: ${error.message}`)],
      });
    } else setTold({ bad: false, lines: ['Read. What was here already stays as it is.'] });
  }
  return (
    <div className={styles.import}>
      <FileButton
        label="Import a shop file"
        name="Shop file"
        busy={state.isLoading}
        onText={(text) => {
          void send(text);
        }}
        onTooLarge={(line) => setTold({ bad: true, lines: [line] })}
      />
      {told !== null && (
        <div className={told.bad ? looks.errorText : looks.quiet} role={told.bad ? 'alert' : 'status'}>
          {told.lines.map((line) => (
            <div key={line}>{line}</div>
          ))}
        </div>
      )}
    </div>
  );
}
