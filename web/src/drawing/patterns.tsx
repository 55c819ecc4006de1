/** Hatch for ice and for what is solid, so that print and colour-blind eyes lose nothing. Once a page. */
export function Patterns() {
  return (
    <svg width="0" height="0" className="absolute" aria-hidden="true" data-patterns>
      <defs>
        <pattern id="ice-hatch" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="5" height="5" fill="var(--ice)" />
          <path d="M0 0V5" stroke="var(--panel)" strokeWidth="2.4" />
        </pattern>
        <pattern id="solid-hatch" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
          <path d="M0 0V7" stroke="var(--strong)" strokeWidth="1" opacity=".55" />
        </pattern>
      </defs>
    </svg>
  );
}
