/** The product's mark: a fork with one tine that turns off. */
export function Mark() {
  return (
    <svg
      width="24"
      height="28"
      viewBox="0 0 24 28"
      fill="none"
      stroke="var(--pine)"
      strokeWidth="2.6"
      strokeLinecap="round"
      aria-hidden="true"
    >
      <path d="M12 27V17M5 3v6c0 5 3 8 7 8s7-3 7-8" />
      <path d="M12 3v13" />
      <path d="M19 9c0-3 .5-5 3.5-5.5" stroke="var(--marigold-deep)" />
    </svg>
  );
}
