import type { OnWall } from './wall.ts';

/** What a thing wants in front of its wall: how far it stands out, and the room to work before it, m. Undefined while its type is not known. */
export const frontWantedM = ({ body }: Pick<OnWall, 'body'>): number | undefined =>
  body?.known === true ? body.value.depthM + body.value.clearFrontM : undefined;

/** The most that any of them wants. */
export const mostFrontM = (wall: readonly OnWall[]): number | undefined =>
  wall.reduce<number | undefined>((most, one) => {
    const wanted = frontWantedM(one);
    return wanted === undefined ? most : Math.max(most ?? 0, wanted);
  }, undefined);
