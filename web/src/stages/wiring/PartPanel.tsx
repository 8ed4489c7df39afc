import { concerns, type Design, type Finding, type Network, type Part, subjectKey } from '@bastion/core';
import { Link } from 'react-router';
import { useJob, useOpenJob } from '../../state/job.ts';
import { put } from '../../state/put.ts';
import { SelectField, TextField } from '../../ui/fields.tsx';
import { deviceIn, deviceOf } from './deviceEdits.ts';
import { NudgeButtons } from './NudgeButtons.tsx';
import { useLight } from '../../state/light.ts';
import { fieldHref } from '../../ui/fieldLinks.ts';
import { FindingList } from '../../ui/FindingLines.tsx';

/** What is found about a part: only trouble, each once. */
export function findingsOfPart(findings: readonly Finding[], partIds: ReadonlySet<string>): Finding[] {
  const seen = new Set<string>();
  return findings.filter((finding) => {
    if (finding.state === 'within') return false;
    const ids = [...partIds];
    if (!ids.some((id) => concerns(finding.subject, { kind: 'part', id }))) return false;
    const key = `${finding.check} ${subjectKey(finding.subject)}`;
    if (seen.has(key)) return false;
    seen.add(key);
    return true;
  });
}

function Facts({ part, network }: { readonly part: Part; readonly network: Network }) {
  const { id } = useOpenJob();
  const bonds = network.bonds.filter(({ partId }) => partId === part.id);
  return (
    <dl className="grid grid-cols-[auto_1fr] gap-x-3 text-[13px]">
      {part.typeName !== undefined && (
        <>
          <dt className="text-quiet">Type</dt>
          <dd>{part.typeName}</dd>
        </>
      )}
      {part.ratedA !== undefined && (
        <>
          <dt className="text-quiet">Rating</dt>
          <dd>{part.ratedA.known ? `${part.ratedA.value} A` : 'not known'}</dd>
        </>
      )}
      {part.fitted !== undefined && (
        <>
          <dt className="text-quiet">Fitted</dt>
          <dd>{part.fitted.known ? (part.fitted.value === 'yes' ? 'yes' : 'none') : 'not known'}</dd>
        </>
      )}
      {bonds.map((bond) => (
        <div key={bond.id} className="contents">
          <dt className="text-quiet">Bond</dt>
          <dd>
            <Link to={fieldHref(id, bond.from)}>{bond.label}</Link>
          </dd>
        </div>
      ))}
      <dt className="text-quiet">Typed at</dt>
      <dd>
        <Link to={fieldHref(id, part.from)}>go to the field</Link>
      </dd>
    </dl>
  );
}

/** Where a device stands: in words, and on the wall plan. */
function DevicePlace({ part }: { readonly part: Part }) {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const device = deviceOf(design, part);
  const edit = (label: string, recipe: (one: Design['devices'][number]) => void) =>
    change(label, (draft) => {
      const target = deviceIn(draft, part);
      if (target !== undefined) recipe(target);
    });
  const path = ['devices', device?.id ?? part.id];
  const mounted = design.place?.mounted.filter((one) => one.part === 'box') ?? [];
  return (
    <div className="mt-1 grid grid-cols-2 gap-x-4">
      <TextField
        label="Stands"
        path={[...path, 'stands']}
        value={device?.stands ?? ''}
        disabled={!canEdit}
        onTake={(value) =>
          edit('Where it stands', (one) => put(one, 'stands', value === '' ? undefined : value))
        }
      />
      <SelectField
        label="On the wall plan"
        path={[...path, 'mountedId']}
        value={device?.mountedId}
        options={mounted.map((one) => ({ value: one.id, label: one.name ?? one.id }))}
        emptyLabel="not there"
        disabled={!canEdit}
        onTake={(value) => edit('Place on the wall', (one) => put(one, 'mountedId', value))}
      />
      {part.role === 'unit-output' && (
        <SelectField
          label="Its neutral pole"
          path={[...path, 'neutral']}
          value={device?.neutral}
          options={[
            { value: 'switched', label: 'opens with the lines' },
            { value: 'solid', label: 'stays joined' },
          ]}
          disabled={!canEdit}
          onTake={(value) => edit('Neutral pole', (one) => put(one, 'neutral', value))}
        />
      )}
    </div>
  );
}

/** The part that was picked on the drawing: what it is, where it was typed, and what is found about it. */
export function PartPanel({
  parts,
  network,
  nodeId,
}: {
  readonly parts: readonly Part[];
  readonly network: Network;
  /** The symbol that stands for them. */
  readonly nodeId: string | undefined;
}) {
  const { analysis } = useOpenJob();
  const lightPart = useLight((store) => store.lightPart);
  const [part] = parts;
  if (part === undefined)
    return (
      <section className="sheet p-3 text-[13px] text-quiet">
        Pick a part on the drawing to see what it is, where it was typed and what is found about it. Pick a
        cell above to see the way that makes it so.
      </section>
    );
  const found = findingsOfPart(analysis.findings, new Set(parts.map(({ id }) => id)));
  return (
    <section className="sheet p-3" aria-label={`Picked: ${part.label}`}>
      <h3 className="font-semibold">
        {parts.length > 1 ? `${part.label} and ${parts.length - 1} more` : part.label}
      </h3>
      <Facts part={part} network={network} />
      {part.kind === 'device' && part.role !== 'circuit' && part.role !== 'service-main' && (
        <DevicePlace part={part} />
      )}
      {nodeId !== undefined && <NudgeButtons nodeId={nodeId} />}
      <FindingList found={found} onLight={(isOn) => lightPart(isOn ? part.id : undefined)} />
    </section>
  );
}
