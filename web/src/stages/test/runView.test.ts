import { judgeStep, type ProcedureStep, type wire } from '@bastion/core';
import { describe, expect, it } from 'vitest';
import { currentValues, earlierAttempts, stepVerdict } from './runView.ts';

describe('a run on the screen', () => {
  const step: ProcedureStep = {
    id: 's',
    section: 'island',
    title: '',
    instructions: [],
    cautions: [],
    readings: [
      {
        id: 'v',
        label: 'V',
        unit: 'V',
        kind: 'number',
        instrument: '',
        expected: { low: 216, high: 244 },
        missing: [],
      },
    ],
  };
  const reading = (id: number, value: number, attempt: number): wire.Reading => ({
    id,
    stepId: 's',
    readingId: 'v',
    value,
    attempt,
    corrects: null,
    note: '',
    source: '',
    captureId: null,
    by: '',
    at: '',
  });

  it('shows the latest correction of the latest attempt, and keeps the verdict of the earlier one', () => {
    const readings = [reading(1, 2300, 1), reading(2, 200, 1), reading(3, 230, 2)];
    expect(currentValues(step, readings).attempt).toBe(2);
    expect(stepVerdict(step, readings)).toBe('within');
    expect(earlierAttempts(step, readings)).toEqual([{ attempt: 1, verdict: 'outside' }]);
    expect(judgeStep(step, new Map())).toBe('pending');
  });
});
