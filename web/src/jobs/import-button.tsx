import { useState } from 'react';
import { Button } from 'antd';
import { useNavigate } from 'react-router';
import { problemOf, useImportJobMutation } from '../app/api.ts';
import { useAppSelector } from '../app/store.ts';
import { FileButton } from '../controls/file-button.tsx';
import { looks } from '../looks/looks.ts';
import styles from './import-button.module.css';

/** Takes a job file in, under a new code where its own is taken and somebody says so. */
export function ImportButton() {
  const navigate = useNavigate();
  const technician = useAppSelector((state) => state.session.technician);
  const [importJob, { isLoading }] = useImportJobMutation();
  const [problem, setProblem] = useState<{ title: string; details: readonly string[]; file: string | null } | null>(
    null,
  );
  async function send(file: string, as: 'same' | 'new'): Promise<void> {
    if (technician === null) {
      setProblem({ title: 'Pick your name at the top right first', details: [], file: null });
      return;
    }
    const answer = await importJob({ file, by: technician, as });
    if (answer.data !== undefined) {
      setProblem(null);
      void navigate(`/jobs/${answer.data.code}`);
      return;
    }
    const told = problemOf(answer.error);
    setProblem({
      title: told.title,
      details: (told.errors ?? []).slice(0, 6).map((error) => `${error.path}: ${error.message}`),
      file: told.type === '/problems/code-taken' ? file : null,
    });
  }
  return (
    <div className={looks.atEnd}>
      <FileButton
        label="Import a job file"
        name="Job file"
        busy={isLoading}
        onText={(text) => {
          void send(text, 'same');
        }}
        onTooLarge={(title) => setProblem({ title, details: [], file: null })}
      />
      {problem !== null && (
        <div className={`${looks.errorText} ${styles.told}`} role="alert">
          <strong>{problem.title}</strong>
          {problem.details.map((detail) => (
            <div key={detail}>{detail}</div>
          ))}
          <div className={`${looks.rowActions} ${looks.justBelow}`}>
            {problem.file !== null && (
              <Button
                onClick={() => {
                  if (problem.file !== null) void send(problem.file, 'new');
                }}
              >
                Import under a new code
              </Button>
            )}
            <Button onClick={() => setProblem(null)}>Leave it</Button>
          </div>
        </div>
      )}
    </div>
  );
}
