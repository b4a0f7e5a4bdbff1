/** The mark: three trays. */
export function Logo() {
  return (
    <svg viewBox="0 0 32 32" width="22" height="22" aria-hidden="true" className="text-act">
      <path
        fill="none"
        stroke="currentColor"
        strokeWidth="2.6"
        strokeLinejoin="round"
        d="M4 8h24l-3 6H7zM6 17h20l-3 5H9zM9 25.5h14"
      />
    </svg>
  );
}
