import type { ReactNode } from "react";
import { ErrorBoundary } from "react-error-boundary";
import { Drawn } from "../ui/Drawn";

/** What stands where a screen broke: the words for a report, and the ways on. What was saved is safe. */
export function Fallen({ children }: { children: ReactNode }) {
  return (
    <ErrorBoundary
      fallbackRender={({ error, resetErrorBoundary }) => (
        <main className="mt-24">
          <Drawn picture="failed" role="alert" title="This screen failed">
            <p className="mt-2 text-muted">
              Your rig is safe: everything saved is kept, and unsaved changes are kept on this device. The error:{" "}
              {error instanceof Error ? error.message : String(error)}
            </p>
            <p className="mt-4 flex gap-4">
              <button type="button" className="h-10 underline" onClick={resetErrorBoundary}>
                Try again
              </button>
              <a href="/" className="inline-flex h-10 items-center underline">
                All rigs
              </a>
            </p>
          </Drawn>
        </main>
      )}
    >
      {children}
    </ErrorBoundary>
  );
}
