import type { CheckId, Ref } from '@bastion/core';
import { type ReactNode, useState } from 'react';
import { FindingLines, useFindingsAbout } from './FindingLines.tsx';
import { StateMark } from './StateMark.tsx';

interface FoldProps {
  readonly title: string;
  readonly checks: readonly CheckId[];
  readonly about: Ref;
  /** Nothing has been said here yet: shown open, so that it is seen. */
  readonly isBare?: boolean;
  readonly children: ReactNode;
}

/** A part of a stage that folds away. Its line shows the worst of its findings, so that folding hides no trouble. */
export function Fold({ title, checks, about, isBare = false, children }: FoldProps) {
  const [worst] = useFindingsAbout(checks, about);
  const [isOpen, setIsOpen] = useState(isBare);
  return (
    <details className="mt-3" open={isOpen} onToggle={(event) => setIsOpen(event.currentTarget.open)}>
      <summary className="font-semibold">
        {title}{' '}
        {worst !== undefined && (
          <span className="ml-2 inline-block align-bottom font-normal">
            <StateMark state={worst.state} />
          </span>
        )}
      </summary>
      <FindingLines checks={checks} about={about} />
      {children}
    </details>
  );
}
