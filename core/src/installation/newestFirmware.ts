/** The newest of some versions, with their numbers compared as numbers; undefined where none is recorded. */
export const newestFirmware = (versions: readonly (string | undefined)[]): string | undefined =>
  versions.flatMap((one) => one ?? []).sort((a, b) => b.localeCompare(a, 'en', { numeric: true }))[0];
