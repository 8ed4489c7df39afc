import { type Procedure, SECTIONS, type wire } from '@bastion/core';
import { stepVerdict } from './runView.ts';
import { VerdictMark } from './VerdictMark.tsx';

const SECTION_WORDS: Record<(typeof SECTIONS)[number], string> = {
  gates: 'Before anything is live',
  'power-up': 'From dead to live',
  live: 'Running on the grid',
  island: 'Island, no load',
  protection: 'Bonds and protection',
  load: 'Load steps',
  start: 'Largest starts',
  generator: 'Generator',
  return: 'Grid return',
  endurance: 'Loss, black start, endurance',
};

interface StepSpineProps {
  readonly procedure: Procedure;
  readonly readings: readonly wire.Reading[];
  readonly at: number;
  /** The last step that is open. */
  readonly last: number;
  readonly onGo: (index: number) => void;
}

/** All steps with their verdicts, thin, at the side. */
export function StepSpine({ procedure, readings, at, last, onGo }: StepSpineProps) {
  return (
    <nav aria-label="Steps of the test" className="text-[13px]">
      {SECTIONS.map((section) => {
        const steps = procedure.steps
          .map((step, index) => ({ step, index }))
          .filter(({ step }) => step.section === section);
        if (steps.length === 0) return null;
        return (
          <section key={section} className="mb-2">
            <h3 className="px-2 text-[12px] font-semibold text-quiet">{SECTION_WORDS[section]}</h3>
            <ol>
              {steps.map(({ step, index }) => (
                <li key={step.id}>
                  <button
                    type="button"
                    aria-current={index === at ? 'step' : undefined}
                    className={`condensed flex w-full items-center gap-2 border-l-[3px] px-2 py-1 text-left ${index === at ? 'border-touch bg-chosen font-semibold' : 'border-transparent'} ${index > last ? 'text-quiet' : ''}`}
                    title={index > last ? 'Shut for now' : undefined}
                    onClick={() => onGo(index)}
                  >
                    <VerdictMark verdict={stepVerdict(step, readings)} silent />
                    <span className="flex-1">{step.title}</span>
                  </button>
                </li>
              ))}
            </ol>
          </section>
        );
      })}
    </nav>
  );
}
