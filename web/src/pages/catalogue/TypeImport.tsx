import { type EquipmentType, KIND_WORDS, mergeTypes, type MergedType, SAMPLE_TYPES } from '@bastion/core';
import { useMemo, useState } from 'react';
import { useCatalogue } from '../../state/catalogue.ts';
import { Modal } from '../../ui/Modal.tsx';

const OUTCOME: Record<MergedType['outcome'], string> = {
  new: 'new',
  'next-version': 'next version',
  same: 'already here, left alone',
  'copy-of-sample': 'differs from a sample: kept as a copy',
};

/** What a file holds, and what would become of each type, before any of it is kept. */
export function TypeImport({
  types,
  onClose,
}: {
  readonly types: readonly EquipmentType[];
  readonly onClose: () => void;
}) {
  const { own, keep } = useCatalogue();
  const [isSure, setIsSure] = useState(false);
  const [failure, setFailure] = useState('');
  const merged = useMemo(
    () =>
      mergeTypes(
        types,
        own.map(({ type }) => type),
        SAMPLE_TYPES,
      ),
    [types, own],
  );
  const fresh = merged.filter(({ outcome }) => outcome !== 'same');
  const hasQuestions = fresh.some(({ questions }) => questions.length > 0);
  const take = async (): Promise<void> => {
    const failed = await keep(fresh.map(({ type }) => type));
    if (failed === undefined) onClose();
    else setFailure(failed);
  };
  return (
    <Modal title="Types in this file" isOpen onClose={onClose} wide>
      <ul>
        {merged.map(({ type, outcome, questions }, index) => (
          <li key={`${type.id}-${index}`} className="border-t border-rule py-1">
            <strong>{type.name}</strong> <span className="text-quiet">{KIND_WORDS[type.kind][0]}</span>:{' '}
            {OUTCOME[outcome]}
            {questions.map((question) => (
              <p key={question.message} className="text-tight">
                Look again: {question.message}.
              </p>
            ))}
          </li>
        ))}
      </ul>
      {hasQuestions && (
        <label className="mt-2 flex items-center gap-1">
          <input type="checkbox" checked={isSure} onChange={(event) => setIsSure(event.target.checked)} />
          The unusual figures are so on their data sheets
        </label>
      )}
      <p className="mt-3 flex items-center gap-3">
        <button
          type="button"
          className="button button-main"
          disabled={fresh.length === 0 || (hasQuestions && !isSure)}
          onClick={() => void take()}
        >
          {fresh.length === 0
            ? 'Nothing new'
            : `Keep ${fresh.length === 1 ? 'one type' : `${fresh.length} types`}`}
        </button>
        {failure !== '' && (
          <span role="alert" className="text-over">
            {failure}
          </span>
        )}
      </p>
    </Modal>
  );
}
