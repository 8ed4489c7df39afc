import type { Conductor, Stack } from '@bastion/core';
import { X } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { useJob, useOpenJob } from '../../../state/job.ts';
import { put } from '../../../state/put.ts';
import { bankIn, moduleIn } from './bankEdits.ts';
import { LeadFields } from './LeadFields.tsx';

interface LeadEditorProps {
  readonly stack: Stack;
  readonly moduleId: string;
  readonly onClose: () => void;
}

/** The lead that was picked in the picture, to be given another length or size: alone, or with all of its kind. */
export function LeadEditor({ stack, moduleId, onClose }: LeadEditorProps) {
  const { canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const frame = useRef<HTMLElement>(null);
  const opener = useRef<Element>(null);
  useEffect(() => {
    opener.current = document.activeElement;
    frame.current?.querySelector('input')?.focus();
  }, [moduleId]);
  const close = (): void => {
    onClose();
    if (opener.current instanceof SVGElement) opener.current.focus();
  };
  const bank = typeof stack.bank === 'object' ? stack.bank : undefined;
  const at = bank?.modules.findIndex((one) => one.id === moduleId) ?? -1;
  const module = bank?.modules[at];
  if (bank === undefined || module === undefined) return null;
  const path = ['stacks', stack.id, 'bank'];
  const isChained = bank.joining?.startsWith('bars') !== true;
  const which = isChained ? `Lead onward from module ${at + 1}` : `Lead of module ${at + 1}`;
  const takeOwn = (lead: Conductor | undefined) =>
    change(which, (draft) => {
      const target = moduleIn(draft, stack.id, moduleId);
      if (target !== undefined) put(target, 'lead', lead);
    });
  const takeAll = (lead: Conductor | undefined) =>
    change('Module leads', (draft) => {
      const target = bankIn(draft, stack.id);
      if (target !== undefined) put(target, 'lead', lead);
    });
  return (
    <section
      ref={frame}
      aria-label={which}
      className="mb-2 border-l-4 border-touch bg-chosen p-2"
      onKeyDown={(event) => {
        if (event.key === 'Escape') close();
      }}
    >
      <div className="flex items-center gap-2">
        <h4 className="flex-1 font-semibold">{which}</h4>
        <button type="button" className="button button-quiet" aria-label="Close the lead" onClick={close}>
          <X size={15} aria-hidden="true" />
        </button>
      </div>
      {bank.lengthsFrom === 'wall' && (
        <p>
          Lengths follow the routes on the wall plan: move the parts or the route there. A size is typed here.
        </p>
      )}
      <div className="grid grid-cols-2 gap-x-3 md:grid-cols-4">
        <LeadFields
          label="This lead"
          path={[...path, 'modules', moduleId, 'lead']}
          lead={module.lead}
          absent="as the others"
          onTake={takeOwn}
        />
        <LeadFields label="All others" path={[...path, 'lead']} lead={bank.lead} onTake={takeAll} />
      </div>
      {!canEdit && <p className="text-quiet">You may look at this job, not change it.</p>}
    </section>
  );
}
