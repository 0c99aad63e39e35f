import { useState } from 'react';
import { Button, Input } from 'antd';
import { codePrefixPattern } from '@fairwatt/contract';
import { problemOf, useAddTechnicianMutation, useChangeSettingsMutation, useShopQuery } from './api.ts';
import { session } from './session.ts';
import { useAppDispatch } from './store.ts';
import { Dialog } from '../controls/dialog.tsx';

/** A new name among the technicians, picked at once. Whoever is the first also says what the shop is called. */
export default function NewNameDialog({ onClose }: { readonly onClose: () => void }) {
  const dispatch = useAppDispatch();
  const shop = useShopQuery();
  const first = shop.data?.technicians.length === 0;
  const [name, setName] = useState('');
  const [shopName, setShopName] = useState('');
  const [prefix, setPrefix] = useState('');
  const [told, setTold] = useState<string | null>(null);
  const [add, { isLoading }] = useAddTechnicianMutation();
  const [change] = useChangeSettingsMutation();
  const wantedPrefix = prefix.trim().toUpperCase();

  /** What the first one says of the shop; what is left empty stays as it is. */
  async function nameShop(by: string): Promise<string | null> {
    if (shop.data === undefined) return null;
    const { settings, settingsVersion } = shop.data;
    const wanted = {
      ...settings,
      name: shopName.trim() === '' ? settings.name : shopName.trim(),
      codePrefix: wantedPrefix === '' ? settings.codePrefix : wantedPrefix,
    };
    const answer = await change({ by, basedOn: settingsVersion, settings: wanted });
    return answer.error === undefined ? null : problemOf(answer.error).title;
  }
  async function save(): Promise<void> {
    if (name.trim() === '') {
      setTold('Write a name.');
      return;
    }
    if (wantedPrefix !== '' && !codePrefixPattern.test(wantedPrefix)) {
      setTold('Codes begin with two letters, such as FW.');
      return;
    }
    const answer = await add({ name });
    if (answer.data === undefined) {
      setTold(problemOf(answer.error).title);
      return;
    }
    dispatch(session.pickTechnician(answer.data.id));
    const trouble = first ? await nameShop(answer.data.id) : null;
    if (trouble === null) onClose();
    else setTold(`The name is kept; the shop's was not: ${trouble}. It can be said at Settings.`);
  }
  return (
    <Dialog title="Who works here?" onClose={onClose}>
      <form
        className="fields"
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <label className="field wide">
          <span className="name">Name</span>
          <Input
            value={name}
            maxLength={60}
            placeholder="As it shall stand under what you do"
            onChange={(event) => setName(event.target.value)}
          />
        </label>
        {first && (
          <>
            <label className="field wide">
              <span className="name">Name of the shop</span>
              <Input
                value={shopName}
                maxLength={80}
                placeholder="As it shall stand on papers"
                onChange={(event) => setShopName(event.target.value)}
              />
            </label>
            <label className="field">
              <span className="name">Codes of jobs begin with</span>
              <Input
                value={prefix}
                maxLength={2}
                placeholder={shop.data?.settings.codePrefix}
                onChange={(event) => setPrefix(event.target.value)}
              />
            </label>
            <p className="quiet wide">Whoever comes first is the owner. All of it can be changed at Settings.</p>
          </>
        )}
        {told !== null && (
          <div className="error-text wide" role="alert">
            {told}
          </div>
        )}
        <Button type="primary" className="primary wide" htmlType="submit" disabled={isLoading}>
          <span>Add the name</span>
          <kbd aria-hidden="true">↵</kbd>
        </Button>
      </form>
    </Dialog>
  );
}
