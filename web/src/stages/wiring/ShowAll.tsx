/** Draws the rest of a long table, where somebody wants it. */
export function ShowAll({ count, onShow }: { readonly count: number; readonly onShow: () => void }) {
  return (
    <p className="no-print mt-1">
      <button type="button" className="button" onClick={onShow}>
        Show all {count}
      </button>
    </p>
  );
}
