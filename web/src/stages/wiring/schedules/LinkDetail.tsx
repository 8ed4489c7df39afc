import type { Design, LinkAsWired } from '@bastion/core';
import { newId, useJob, useOpenJob } from '../../../state/job.ts';
import { put } from '../../../state/put.ts';
import { FindingLines } from '../../../ui/FindingLines.tsx';
import { NumberField, SelectField } from '../../../ui/fields.tsx';

/** What somebody says of the cable of a link; made where nobody has said anything of it yet. */
function linkIn(draft: Design, linkId: string): LinkAsWired {
  draft.wiring ??= {};
  draft.wiring.links ??= [];
  const found = draft.wiring.links.find((one) => one.linkId === linkId);
  if (found !== undefined) return found;
  const made: LinkAsWired = { id: newId('k'), linkId };
  draft.wiring.links.push(made);
  // What the list holds is the draft of it, not the object it was made of.
  return draft.wiring.links.at(-1) ?? made;
}

interface BusFieldsProps {
  readonly wired: LinkAsWired | undefined;
  readonly path: readonly string[];
  readonly edit: (label: string, recipe: (one: LinkAsWired) => void) => void;
}

/** What is said of the pair of a bus. */
function BusFields({ wired, path, edit }: BusFieldsProps) {
  const { canEdit } = useOpenJob();
  return (
    <>
      <SelectField
        label="Pairs"
        path={[...path, 'pairs']}
        value={wired?.pairs}
        options={[
          { value: 'one', label: 'one twisted pair' },
          { value: 'bunched', label: 'cores of several bunched' },
        ]}
        emptyLabel="one, as planned"
        disabled={!canEdit}
        onTake={(value) => edit('Pairs', (one) => put(one, 'pairs', value))}
      />
      <SelectField
        label="Polarity end to end"
        path={[...path, 'polarity']}
        value={wired?.polarity}
        options={[
          { value: 'straight', label: '+ to +, − to −' },
          { value: 'swapped', label: 'exchanged' },
        ]}
        emptyLabel="kept, as planned"
        disabled={!canEdit}
        onTake={(value) => edit('Polarity', (one) => put(one, 'polarity', value))}
      />
      <SelectField
        label="Shield earthed"
        path={[...path, 'shield']}
        value={wired?.shield}
        options={[
          { value: 'one-end', label: 'at one end' },
          { value: 'both-ends', label: 'at both ends' },
          { value: 'neither', label: 'nowhere' },
          { value: 'none', label: 'the cable has none' },
        ]}
        emptyLabel="at one end, as planned"
        disabled={!canEdit}
        onTake={(value) => edit('Shield', (one) => put(one, 'shield', value))}
      />
    </>
  );
}

/** A link opened: how its cable is made, where somebody has said it. */
export function LinkDetail({ linkId }: { readonly linkId: string }) {
  const { design, analysis, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const { network } = analysis.installation;
  const link = network.known ? network.value.links.find(({ id }) => id === linkId) : undefined;
  const wired = design.wiring?.links?.find((one) => one.linkId === linkId);
  const path = ['wiring', 'links', wired?.id ?? linkId];
  if (link?.by === 'radio') return <p className="p-2">Joined by radio: there is no cable to make.</p>;
  const edit = (label: string, recipe: (one: LinkAsWired) => void) =>
    change(label, (draft) => recipe(linkIn(draft, linkId)));
  return (
    <div className="sticky left-0 w-[calc(100cqw-3rem)] rounded-sm border border-rule bg-ground p-2 whitespace-normal">
      <div className="grid grid-cols-2 gap-x-4 gap-y-1 md:grid-cols-5">
        <SelectField
          label="Cable"
          path={[...path, 'cable']}
          value={wired?.cable}
          options={[
            { value: 'supplied', label: 'the one supplied' },
            { value: 'network', label: 'straight network cable' },
            { value: 'pair', label: 'a pair, landed core by core' },
          ]}
          emptyLabel="as planned"
          disabled={!canEdit}
          onTake={(value) => edit('Cable of a bus', (one) => put(one, 'cable', value))}
        />
        <NumberField
          label="Length"
          path={[...path, 'lengthM']}
          value={wired?.lengthM}
          unit="m"
          disabled={!canEdit}
          onTake={(value) => edit('Length of a bus cable', (one) => put(one, 'lengthM', value))}
        />
        {link?.kind !== 'network' && <BusFields wired={wired} path={path} edit={edit} />}
      </div>
      <FindingLines
        checks={['wiring.bus-pairs', 'wiring.bus-cable', 'wiring.bus-shape', 'wiring.network']}
        about={{ kind: 'part', id: linkId }}
      />
    </div>
  );
}

/** The colour order of network cables in this job. */
export function CommsForm() {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  return (
    <div className="no-print w-72">
      <SelectField
        label="Colour order of network cables"
        path={['wiring', 'colours']}
        value={design.wiring?.colours}
        options={[
          { value: 'A', label: 'A: green pair on pins 1 and 2' },
          { value: 'B', label: 'B: orange pair on pins 1 and 2' },
        ]}
        emptyLabel="B, as planned"
        disabled={!canEdit}
        onTake={(value) =>
          change('Colour order', (draft) => {
            draft.wiring ??= {};
            put(draft.wiring, 'colours', value);
          })
        }
      />
    </div>
  );
}
