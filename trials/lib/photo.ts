const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

/** One point of a picture, as an upload has it. */
export function photoForm(): FormData {
  const form = new FormData();
  form.set('photo', new Blob([PNG]), 'box.png');
  form.set('thumbnail', new Blob([PNG]), 'small.png');
  return form;
}
