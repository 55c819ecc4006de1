import { Component, type ReactNode } from "react";

/** What stands where a screen broke: the words for a report, and the way back. What was saved is safe. */
export class Fallen extends Component<{ children: ReactNode }, { error: Error | null }> {
  override state: { error: Error | null } = { error: null };

  static getDerivedStateFromError(error: Error) {
    return { error };
  }

  override render() {
    if (!this.state.error) return this.props.children;
    return (
      <main role="alert" className="mx-auto mt-24 max-w-md p-6">
        <h1 className="text-[17px] font-semibold">This screen broke</h1>
        <p className="mt-2 text-muted">
          The last saved state of the rig is safe, and a change not yet saved is kept on this device. The fault: {this.state.error.message}
        </p>
        <a href="/" className="mt-4 inline-block underline">
          To the shelf
        </a>
      </main>
    );
  }
}
