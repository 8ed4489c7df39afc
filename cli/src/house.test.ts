import { existsSync, readFileSync } from 'node:fs';
import { CHECKS, DEFAULT_KEYS, STATES } from '@bastion/core';
import { describe, expect, it } from 'vitest';

const at = (path: string): URL => new URL(`../../${path}`, import.meta.url);
const text = (path: string): string => readFileSync(at(path), 'utf8');

describe('the register of checks', () => {
  const ids = CHECKS.map((check) => check.id);

  it('is sorted and has each id once', () => {
    expect(ids).toEqual([...new Set(ids)].sort());
  });

  it.each(ids)('%s has a file and a table of its own, and stands in the engineering basis', (id) => {
    const [family = ''] = id.split('.');
    const name = id.replace(/[.-](\w)/g, (_, letter: string) => letter.toUpperCase());
    expect(existsSync(at(`core/src/checks/${family}/${name}.ts`))).toBe(true);
    expect(text(`core/src/checks/${family}/${name}.test.ts`)).toContain(`checkTable(${name},`);
    expect(text('docs/engineering-basis.md')).toContain(`\`${id}\``);
  });

  it('has a sentence for every outcome, and none that promises safety', () => {
    for (const check of CHECKS) {
      for (const state of STATES) {
        expect(check.sentences[state], `${check.id} ${state}`).not.toBe('');
        expect(check.sentences[state]).not.toMatch(/\bsafe\b|!/i);
      }
    }
  });
});

describe('the documents', () => {
  it('list every planning default', () => {
    for (const key of DEFAULT_KEYS) expect(text('docs/engineering-basis.md')).toContain(`\`${key}\``);
  });

  it('carry one version', () => {
    const version = (JSON.parse(text('package.json')) as { version: string }).version;
    expect(text('server/src/version.ts')).toContain(`'${version}'`);
    expect(text('CHANGELOG.md')).toContain(`## ${version}`);
  });
});
