import { Tag } from 'antd';
import { dayText, priorityText, type Priority } from '@fairwatt/core';
import { looks } from '../looks/looks.ts';
import { today } from './clock.ts';
import styles from './promised.module.css';

/** Until when a job is wanted and how urgent it is; nothing where nobody said so. */
export function Promised({
  priority,
  promisedOn,
  open,
  inText = false,
}: {
  readonly priority: Priority;
  readonly promisedOn: string | null;
  readonly open: boolean;
  /** Whether it goes on a line of text, apart from what stands before it. */
  readonly inText?: boolean;
}) {
  if (promisedOn === null && (priority === 'usual' || !open)) return null;
  const late = open && promisedOn !== null && promisedOn < today();
  return (
    <>
      {inText && <span className={looks.quiet}> · </span>}
      <span className={styles.promised}>
        {priority !== 'usual' && open && (
          <Tag color={priority === 'urgent' ? 'error' : 'default'}>{priorityText[priority]}</Tag>
        )}
        {promisedOn !== null && (
          <span className={late ? looks.errorText : looks.quiet}>
            promised for {dayText(promisedOn)}
            {late && ', overdue'}
          </span>
        )}
      </span>
    </>
  );
}
