import type { wire } from '@bastion/core';
import { Columns3, GitBranch, History } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { type SyntheticEvent, useCallback, useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { api, failureSentence } from '../api/client.ts';
import { useJob, useOpenJob } from '../state/job.ts';
import { Modal } from './Modal.tsx';

const ITEM = 'flex gap-2 rounded-sm px-2 py-1.5 data-highlighted:bg-chosen data-disabled:text-quiet';

function NewVariant({
  isOpen,
  onClose,
  onMade,
}: {
  readonly isOpen: boolean;
  readonly onClose: () => void;
  readonly onMade: (id: number) => void;
}) {
  const { id } = useOpenJob();
  const [name, setName] = useState('');
  const [failure, setFailure] = useState('');
  const create = (event: SyntheticEvent): void => {
    event.preventDefault();
    if (name.trim() === '') return;
    api.createVariant(id, name.trim()).then(
      (made) => {
        setName('');
        onMade(made.id);
      },
      (error: unknown) => setFailure(failureSentence(error)),
    );
  };
  return (
    <Modal title="Take a variant" isOpen={isOpen} onClose={onClose}>
      <form className="grid gap-3" onSubmit={create}>
        <p>A copy of the design as it stands now, with revisions of its own. Up to eight for a job.</p>
        <label className="block">
          <span className="block text-[13px] text-quiet">Name of the variant</span>
          <input
            className="input"
            value={name}
            maxLength={60}
            onChange={(event) => setName(event.target.value)}
          />
        </label>
        <p role="alert" className="font-semibold text-over empty:hidden">
          {failure}
        </p>
        <div>
          <button type="submit" className="button button-main" disabled={name.trim() === ''}>
            Take the variant
          </button>
        </div>
      </form>
    </Modal>
  );
}

/** Which variant of the job is open, the way to the others, and to all of them side by side. */
export function VariantMenu() {
  const { id, canEdit } = useOpenJob();
  const save = useJob((store) => store.save);
  const tell = useJob((store) => store.tell);
  const navigate = useNavigate();
  const [list, setList] = useState<readonly wire.Variant[]>([]);
  const [isTaking, setIsTaking] = useState(false);
  const load = useCallback(() => {
    api.variants(id).then(setList, () => setList([]));
  }, [id]);
  useEffect(load, [load]);
  const here = list.find((one) => one.jobId === id);
  const main = list.find((one) => one.isMain);
  const remove = (): void => {
    api.removeVariant(id).then(
      () => void navigate(`/jobs/${main?.jobId ?? ''}`),
      (error: unknown) => tell(failureSentence(error)),
    );
  };
  return (
    <>
      <DropdownMenu.Root onOpenChange={(open) => open && load()}>
        <DropdownMenu.Trigger asChild>
          <button type="button" className="button button-quiet">
            <GitBranch size={15} aria-hidden="true" /> Variant{here !== undefined && `: ${here.name}`}
          </button>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content className="sheet z-20 min-w-56 p-1 shadow-md" align="end">
            {list.map((one) => (
              <DropdownMenu.Item
                key={one.jobId}
                className={ITEM}
                disabled={one.jobId === id}
                onSelect={() => void navigate(`/jobs/${one.jobId}`)}
              >
                {one.name} {one.jobId === id && '(open)'}
              </DropdownMenu.Item>
            ))}
            <DropdownMenu.Separator className="my-1 h-px bg-rule" />
            <DropdownMenu.Item className={ITEM} onSelect={() => void navigate(`/jobs/${id}/compare`)}>
              <Columns3 size={15} aria-hidden="true" /> Compare side by side
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={() => void navigate(`/jobs/${id}/revisions`)}>
              <History size={15} aria-hidden="true" /> Earlier revisions
            </DropdownMenu.Item>
            {canEdit && (
              <DropdownMenu.Item
                className={ITEM}
                disabled={save.kind !== 'saved'}
                onSelect={() => setIsTaking(true)}
              >
                Take a variant…
              </DropdownMenu.Item>
            )}
            {canEdit && here?.isMain === false && (
              <DropdownMenu.Item className={ITEM} onSelect={remove}>
                Remove this variant
              </DropdownMenu.Item>
            )}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      <NewVariant
        isOpen={isTaking}
        onClose={() => setIsTaking(false)}
        onMade={(made) => {
          setIsTaking(false);
          void navigate(`/jobs/${made}`);
        }}
      />
    </>
  );
}
