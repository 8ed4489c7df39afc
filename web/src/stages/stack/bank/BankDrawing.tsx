import type { Bank, BankCircuit, BankShare, Stack } from '@bastion/core';
import { BankConductors } from './BankConductors.tsx';
import { BankInverters } from './BankInverters.tsx';
import { BankModule, type ShareLimits } from './BankModule.tsx';
import { layOut, PICTURE_HIGH } from './bankLayout.ts';

interface BankDrawingProps {
  readonly stack: Stack;
  readonly bank: Bank;
  readonly circuit: BankCircuit;
  readonly share: Extract<BankShare, { kind: 'solved' }>;
  readonly limits: ShareLimits;
  readonly lostUnitId: string | undefined;
  readonly ofUnitId: string | undefined;
  readonly onModule: (moduleId: string) => void;
  readonly onLead: (moduleId: string) => void;
}

/** The picture shrinks so far; then it scrolls, so that its figures stay legible. */
const LEAST_SCALE = 0.88;

/** The bank as it lies: modules with their current, the conductors that join them, and where the inverters tap it. */
export function BankDrawing(props: BankDrawingProps) {
  const { stack, bank, circuit, share, limits, lostUnitId, ofUnitId, onModule, onLead } = props;
  const layout = layOut(bank.modules.length, ofUnitId === undefined ? stack.units.length : 1);
  const { width } = layout;
  return (
    <svg
      viewBox={`0 0 ${width} ${PICTURE_HIGH}`}
      style={{ width, maxWidth: '100%', minWidth: width * LEAST_SCALE }}
      role="group"
      aria-label="The bank as it lies"
    >
      <BankConductors bank={bank} circuit={circuit} layout={layout} onLead={onLead} />
      <BankInverters
        stack={stack}
        bank={bank}
        circuit={circuit}
        share={share}
        layout={layout}
        lostUnitId={lostUnitId}
        ofUnitId={ofUnitId}
      />
      {share.modules.map((one) => (
        <BankModule
          key={one.module.id}
          index={one.module.number - 1}
          layout={layout}
          one={one}
          limits={limits}
          onChoose={onModule}
        />
      ))}
    </svg>
  );
}
