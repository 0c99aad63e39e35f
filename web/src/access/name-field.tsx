import { Input, Radio } from 'antd';
import { FormField } from '../controls/form.tsx';
import styles from './name-field.module.css';
import { personName } from './words.ts';

/** Who it is: picked among the names that this device knows, written where it knows none. */
export function NameField({ names }: { readonly names: readonly string[] }) {
  return (
    <FormField name="name" label="Name" schema={personName}>
      {names.length === 0 ? (
        <Input maxLength={60} autoComplete="username" autoFocus />
      ) : (
        <Radio.Group
          className={styles['names'] ?? ''}
          optionType="button"
          buttonStyle="solid"
          options={names.map((name) => ({ value: name, label: name }))}
        />
      )}
    </FormField>
  );
}
