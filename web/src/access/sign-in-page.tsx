import { useState } from 'react';
import { Button } from 'antd';
import type { Access } from '@fairwatt/contract';
import { OwnerForm } from './owner-form.tsx';
import { SignInForm } from './sign-in-form.tsx';
import { WayIn } from './way-in.tsx';
import { signs } from '../controls/signs.tsx';

/** The way in, before anything of the shop is shown. */
export default function SignInPage({ access }: { readonly access: Access }) {
  const [byCode, setByCode] = useState(access.ownerless);
  if (byCode)
    return (
      <WayIn
        shop={access.shop}
        title={access.ownerless ? 'This shop has no owner yet' : 'An owner by the console’s code'}
        say={
          access.ownerless
            ? 'Whoever started Fair Watt sees a code on the console. It makes one owner, once.'
            : 'Whoever can reach the console gets a code with “./fairwatt owner-code”.'
        }
      >
        <OwnerForm access={access} />
        {!access.ownerless && (
          <Button icon={signs.previous} type="link" onClick={() => setByCode(false)}>
            Back to signing in
          </Button>
        )}
      </WayIn>
    );
  return (
    <WayIn shop={access.shop} title="Who works here?" say="Every change is signed with the name that signed in.">
      <SignInForm access={access} />
      <Button type="link" onClick={() => setByCode(true)}>
        Locked out? An owner by the console’s code
      </Button>
    </WayIn>
  );
}
