export function LanternMark() {
  return (
    <svg aria-hidden viewBox="0 0 32 32" className="size-6 shrink-0">
      <path
        d="M9 26h14M11 26V13l5-6 5 6v13M16 7V4"
        fill="none"
        stroke="currentColor"
        strokeWidth="2"
        strokeLinecap="round"
        strokeLinejoin="round"
      />
      <circle cx="16" cy="18" r="3.4" style={{ fill: "var(--glow)" }} />
    </svg>
  );
}
