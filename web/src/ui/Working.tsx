/** What is being worked out, and how much of it is done; or that it could not be. */
export function Working({
  words,
  asked,
  className = "",
}: {
  words: string;
  asked: { isError: boolean; share?: number };
  className?: string;
}) {
  const { isError, share = 0 } = asked;
  return (
    <p
      className={`flex flex-wrap items-center gap-3 text-muted ${className}`}
      {...(isError ? { role: "alert" } : { "aria-live": "polite" })}
    >
      {isError ? "Couldn't calculate this." : words}
      {!isError && share > 0 && <progress max={1} value={share} aria-label="Share that is done" />}
    </p>
  );
}
