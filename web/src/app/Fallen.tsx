import type { ReactNode } from "react";
import { ErrorBoundary } from "react-error-boundary";

/** What stands where a screen broke: the words for a report, and the ways on. What was saved is safe. */
export function Fallen({ children }: { children: ReactNode }) {
  return (
    <ErrorBoundary
      fallbackRender={({ error, resetErrorBoundary }) => (
        <main role="alert" className="mx-auto mt-24 max-w-md p-6">
          <h1 className="text-[17px] font-semibold">This screen broke</h1>
          <p className="mt-2 text-muted">
            The last saved state of the rig is safe, and a change not yet saved is kept on this device. The fault:{" "}
            {error instanceof Error ? error.message : String(error)}
          </p>
          <p className="mt-4 flex gap-4">
            <button type="button" className="h-10 underline" onClick={resetErrorBoundary}>
              Try again
            </button>
            <a href="/" className="inline-flex h-10 items-center underline">
              To the shelf
            </a>
          </p>
        </main>
      )}
    >
      {children}
    </ErrorBoundary>
  );
}
