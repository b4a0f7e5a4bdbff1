/** New rows that wait until somebody wants to see them, so that nothing moves under her pointer. */
export function NewRows({ count, onShow }: { count: number; onShow: () => void }) {
  return (
    <div role="status" className="relative z-20 h-0 shrink-0 text-center">
      {count > 0 && (
        <button
          type="button"
          aria-keyshortcuts="i"
          onClick={onShow}
          className="mt-1 rounded-control border border-act bg-paper px-3 py-0.5 text-sm font-semibold text-act shadow-raised hover:bg-act-soft"
        >
          {count} new
        </button>
      )}
    </div>
  );
}
