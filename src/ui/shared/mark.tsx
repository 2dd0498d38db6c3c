/** Cavlo's mark: a ring with a part taken out. */
export function Mark({ size = 20 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 24 24" aria-hidden="true">
      <path d="M12 2a10 10 0 1 0 9.9 11.4h-5.1A5 5 0 1 1 12 7z" fill="var(--verdigris)" />
      <path d="M13.4 2.1v5.1a5 5 0 0 1 3.4 4.2h5.1a10 10 0 0 0-8.5-9.3z" fill="var(--rule)" />
    </svg>
  );
}
