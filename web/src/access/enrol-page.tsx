import { Input } from 'antd';
import { useLocation, useNavigate } from 'react-router';
import { enrolSchema } from '@fairwatt/contract';
import { api, problemOf, useAccessQuery, useEnrolDeviceMutation } from '../app/api.ts';
import { allTags } from '../app/endpoints/build.ts';
import { useAppDispatch } from '../app/store.ts';
import { FormField, SheetForm } from '../controls/form.tsx';
import { looks } from '../looks/looks.ts';
import { WayIn } from './way-in.tsx';

/** A browser becomes a device of the shop by the code that an owner's screen shows. */
export default function EnrolPage() {
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const { hash } = useLocation();
  const access = useAccessQuery();
  const [enrol, { isLoading }] = useEnrolDeviceMutation();
  return (
    <WayIn
      shop={access.data?.shop ?? 'this shop'}
      title="Enrol this device"
      say="From then on a PIN is enough on it. An owner ends that at any time."
    >
      <SheetForm
        initial={{ code: hash.slice(1) }}
        act="Enrol it"
        busy={isLoading}
        onSend={async ({ code }) => {
          const answer = await enrol({ code });
          if (answer.error !== undefined) return problemOf(answer.error);
          dispatch(api.util.invalidateTags([...allTags]));
          await navigate('/jobs', { replace: true });
          return null;
        }}
      >
        <FormField name="code" label="Code of the owner’s screen" schema={enrolSchema.shape.code}>
          <Input maxLength={20} className={looks.fig} autoFocus placeholder="ABCDE-FGHJK" />
        </FormField>
      </SheetForm>
    </WayIn>
  );
}
