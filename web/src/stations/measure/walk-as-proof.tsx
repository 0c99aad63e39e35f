import { useState } from 'react';
import { Button } from 'antd';
import { faceOfPlug, plugName, spareVerdict, unprovedPlugs, type BagCable, type CableProbe } from '@fairwatt/core';
import { problemOf, useChangeProofMutation } from '../../app/api.ts';
import { SelectField } from '../../controls/fields.tsx';
import { useDesk, type JobDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';

/** The walks of a cable under this name, and its plugs that none of them proves on a supply. */
function walksOf({ job, shop }: JobDesk, probe: CableProbe, cable: BagCable | undefined, modelId: string) {
  const walks = job.probes.filter(
    (walk) => walk.label === probe.label && cable?.plugs.some((plug) => faceOfPlug[plug.kind] === walk.plug) === true,
  );
  const guide = shop.supplies.find((model) => model.id === modelId)?.label.guide;
  const left =
    cable === undefined || guide === undefined
      ? []
      : unprovedPlugs(
          cable.plugs.map(({ kind }) => kind),
          walks,
          guide,
        );
  return { walks, left };
}

/** A walk in which every pin was right proves a spare cable on the supply it was walked on. */
export function WalkAsProof({ probe }: { readonly probe: CableProbe }) {
  const desk = useDesk();
  const { shop, job, technician } = desk;
  const [cableId, setCable] = useState('');
  const [modelId, setModel] = useState(job.choice?.modelId ?? '');
  const [prove, proving] = useChangeProofMutation();
  const cables = shop.bags.cables.filter((cable) => cable.plugs.some((plug) => faceOfPlug[plug.kind] === probe.plug));
  const models = shop.supplies.filter((model) => model.label.modular !== 'fixed');
  if (cables.length === 0) return null;
  const cable = cables.find((item) => item.id === cableId);
  const { walks, left } = walksOf(desk, probe, cable, modelId);
  const harmful = cable !== undefined && modelId !== '' && spareVerdict(shop.bags, cable, modelId).word === 'harmful';
  return (
    <section aria-label="As proof of a spare cable" className={looks.wellBelow}>
      <span className={looks.label}>Keep it as proof of a spare cable</span>
      <div className={`${looks.rowActions} ${looks.onFoot}`}>
        <SelectField
          label="Cable from the bags"
          value={cableId}
          options={[{ value: '', label: 'pick one' }, ...cables.map((item) => ({ value: item.id, label: item.label }))]}
          disabled={technician === null}
          onChange={setCable}
        />
        <SelectField
          label="Walked on this supply"
          value={modelId}
          options={[
            { value: '', label: 'pick one' },
            ...models.map((model) => ({ value: model.id, label: model.name })),
          ]}
          disabled={technician === null}
          onChange={setModel}
        />
        <Button
          disabled={
            technician === null ||
            cableId === '' ||
            modelId === '' ||
            harmful ||
            left.length > 0 ||
            proving.isLoading ||
            proving.isSuccess
          }
          onClick={() =>
            void prove({
              by: technician ?? '',
              cableId,
              modelId,
              proved: true,
              note: `walked pin by pin in ${job.code}, ${probe.label}`,
              walks: walks.map(({ id }) => ({ job: job.code, probeId: id })),
            })
          }
        >
          Keep the proof
        </Button>
      </div>
      {left.length > 0 && (
        <p data-unproved-plugs>Still to walk, under the same name: {left.map((plug) => plugName[plug]).join(', ')}.</p>
      )}
      {harmful && (
        <p className={looks.errorText}>
          By what is known of its wires this cable does harm there. Correct its wires first, if the walk says otherwise.
        </p>
      )}
      {proving.isSuccess && <p role="status">Kept. The plan may use it on this supply.</p>}
      {proving.isError && (
        <p className={looks.errorText} role="alert">
          {problemOf(proving.error).title}
        </p>
      )}
    </section>
  );
}
