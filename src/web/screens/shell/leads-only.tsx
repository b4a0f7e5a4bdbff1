/** Why somebody sees a setting and cannot change it. */
export function LeadsOnly() {
  return <span className="text-soft">Only leads of the tray can change this.</span>;
}
