import type { LayoutAnswer, LayoutQuestion } from '@bastion/core';
import { expose } from 'comlink';
import elk from 'elkjs/lib/elk.bundled.js';

/** The bundle is a class to a bundler and holds one to the type checker. */
const Engine = ('default' in elk ? elk.default : elk) as new () => {
  layout: (question: LayoutQuestion) => Promise<LayoutAnswer>;
};
const engine = new Engine();

const work = { layout: (question: LayoutQuestion): Promise<LayoutAnswer> => engine.layout(question) };
export type LayoutWork = typeof work;

expose(work);
