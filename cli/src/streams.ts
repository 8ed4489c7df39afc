/** Where a command writes to. */
export interface Streams {
  readonly out: (text: string) => void;
  readonly error: (text: string) => void;
}
