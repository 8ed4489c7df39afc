import { describePlaces } from '../words/places.ts';
import { formatQuantity } from '../words/quantity.ts';
import { checkById, type RegisteredFinding } from './registry.ts';

/** The sentence of a finding, made from its fields and the template of its check. */
export function sentenceOf(stated: object, finding: RegisteredFinding): string {
  const check = checkById(finding.check);
  const show = (value: number | undefined): string =>
    value === undefined ? 'not known' : formatQuantity(value, finding.unit);
  const words: Record<string, string> = {
    subject: finding.subject.label,
    value: show(finding.value),
    limit: show(finding.limit),
    margin: finding.margin === undefined ? '' : formatQuantity(Math.abs(finding.margin), 'fraction'),
    missing: describePlaces(stated, finding.missing),
  };
  for (const [key, value] of Object.entries(finding.data)) words[key] = String(value);
  return check.sentences[finding.state].replace(
    /\{\{(\w+)\}\}/g,
    (_, key: string) => words[key] ?? `{{${key}}}`,
  );
}
