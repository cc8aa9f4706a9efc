/** A protective device at the start of its run: its case, and a contact that opens. */
export const DeviceSymbol = () => (
  <svg width="48" height="48" viewBox="0 0 48 48" aria-hidden="true" style={{ flex: "none" }}>
    <rect
      x="4"
      y="13"
      width="20"
      height="22"
      fill="var(--ep-panel)"
      stroke="var(--ep-text)"
      strokeWidth="2"
    />
    <path d="M24 24h4m0 0 12-8m4 8h4" stroke="var(--ep-text)" strokeWidth="2" fill="none" />
    <rect x="29" y="20" width="14" height="8" fill="var(--ep-ground)" />
    <path d="m28 24 13-8" stroke="var(--ep-text)" strokeWidth="2" />
  </svg>
);
