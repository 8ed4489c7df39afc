import type { OnWall } from './wall.ts';

/** What a thing wants in front of its wall: how far it stands out, and the room to work before it, m. Undefined while its type is not known. */
export const frontWantedM = ({ body }: Pick<OnWall, 'body'>): number | undefined =>
  body?.known === true ? body.value.depthM + body.value.clearFrontM : undefined;

/** The most that any of them wants, and whether all of them are known. */
export const mostFrontM = (
  wall: readonly OnWall[],
): { readonly mostM: number | undefined; readonly isWhole: boolean } => {
  const things = wall.filter(({ body }) => body !== undefined);
  const wanted = things.flatMap((one) => frontWantedM(one) ?? []);
  return {
    mostM: wanted.length === 0 ? undefined : Math.max(...wanted),
    isWhole: wanted.length === things.length,
  };
};
