import { X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';

interface ModalProps {
  readonly title: string;
  readonly isOpen: boolean;
  readonly onClose: () => void;
  readonly children: ReactNode;
  readonly wide?: boolean;
}

/** A dialog over the page, closed with Escape, the cross, or a click beside it. */
export function Modal({ title, isOpen, onClose, children, wide = false }: ModalProps) {
  return (
    <Dialog.Root open={isOpen} onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-ink/25 dark:bg-black/50" />
        <Dialog.Content
          className={`sheet fixed top-[5vh] left-1/2 z-30 flex max-h-[90vh] w-[min(96vw,var(--wide))] -translate-x-1/2 flex-col shadow-lg ${wide ? '[--wide:64rem]' : '[--wide:38rem]'}`}
          aria-describedby={undefined}
        >
          <header className="flex items-center gap-2 border-b border-rule px-4 py-2">
            <Dialog.Title className="flex-1 text-[17px] font-semibold">{title}</Dialog.Title>
            <Dialog.Close className="button button-quiet" aria-label="Close">
              <X size={16} aria-hidden="true" />
            </Dialog.Close>
          </header>
          <div className="min-h-0 overflow-y-auto p-4" tabIndex={-1}>
            {children}
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
