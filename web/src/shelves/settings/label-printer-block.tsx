import { problemOf, useLabelPrinterQuery, useSetLabelPrinterMutation } from '../../app/api.ts';
import { looks } from '../../looks/looks.ts';
import { TextSetting } from './text-setting.tsx';

/** Where cable tags are printed. */
export function LabelPrinterBlock({
  owner,
  technician,
}: {
  readonly owner: boolean;
  readonly technician: string | null;
}) {
  const printer = useLabelPrinterQuery();
  const [set, setting] = useSetLabelPrinterMutation();
  const problem = setting.isError ? problemOf(setting.error) : null;
  return (
    <section className={looks.block} aria-label="Label printer">
      <span className={looks.label}>Label printer</span>
      <div className={looks.fields}>
        <TextSetting
          wide
          label="Address that takes a PDF by POST"
          value={printer.data?.url ?? ''}
          maxLength={300}
          disabled={!owner}
          problem={(value) => (URL.canParse(value) ? null : 'an address such as http://192.168.1.9:8080/print')}
          onSave={(url) => void set({ by: technician ?? '', url })}
        />
      </div>
      {problem !== null && (
        <p className={looks.errorText} role="alert">
          {[problem.title, ...(problem.errors ?? []).map((error) => error.message)].join(': ')}
        </p>
      )}
    </section>
  );
}
