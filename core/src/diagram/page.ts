/** A page that holds one drawing whole: A3, upright or lying as the drawing is. For the PDF writer of the shells. */
export const drawingPage = (
  svg: string,
  size: { readonly widthPx: number; readonly heightPx: number },
  title: string,
) => {
  const lies = size.widthPx >= size.heightPx;
  // A3 in points, less a margin all around.
  const [width, height] = lies ? [1150, 802] : [802, 1150];
  return {
    pageSize: 'A3' as const,
    pageOrientation: lies ? ('landscape' as const) : ('portrait' as const),
    pageMargins: 20,
    info: { title },
    defaultStyle: { font: 'Roboto' },
    content: [{ svg, fit: [width - 4, height - 4] as [number, number] }],
  };
};
