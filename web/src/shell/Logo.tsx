/** The block of four woods. */
export function Logo({ size = 30 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 30 30" aria-hidden="true">
      <path d="M15 1L28 8.5V21.5L15 29L2 21.5V8.5z" fill="#d39a35" />
      <path d="M15 15L28 8.5V21.5L15 29z" fill="#7a3441" />
      <path d="M15 15L2 8.5V21.5L15 29z" fill="#b4622f" />
      <path d="M15 1L21.5 4.75L8.5 12.25L2 8.5z" fill="#f0d9a6" />
    </svg>
  );
}
