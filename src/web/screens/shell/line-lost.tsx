/** Says that the line to the server is down, and what becomes of what one does meanwhile. */
export function LineLost() {
  return (
    <p role="status" className="mx-4 mb-1.5 rounded-control border border-late bg-paper px-3 py-1 text-sm">
      <b className="font-semibold text-late">Connection lost.</b> What is shown may be out of date. Your changes are
      kept and will be sent when it returns.
    </p>
  );
}
