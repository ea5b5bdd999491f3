import { Component } from "react";
import type { ErrorInfo, ReactNode } from "react";

interface Props {
  title: string;
  /** What can be done about it beside trying again. */
  action?: { name: string; act: () => void } | null;
  children: ReactNode;
}

/** A part of the screen that fails by itself: the rest goes on, what failed is said, and it can be tried again. */
export class ScreenBoundary extends Component<Props, { error: Error | null }> {
  override state: { error: Error | null } = { error: null };

  static getDerivedStateFromError(error: unknown): { error: Error } {
    return { error: error instanceof Error ? error : new Error(String(error)) };
  }

  override componentDidCatch(error: unknown, info: ErrorInfo): void {
    console.error(error, info.componentStack);
  }

  override render(): ReactNode {
    const { error } = this.state;
    if (error === null) return this.props.children;
    const { title, action } = this.props;
    return (
      <section role="alert" className="p-6">
        <h1>{title}</h1>
        <p className="mt-2">{error.message}</p>
        <p className="quiet mt-1">Nothing was lost on the server; the rest of the screen works on.</p>
        <div className="mt-4 flex gap-3">
          <button type="button" className="action" onClick={() => this.setState({ error: null })}>
            Try again
          </button>
          {action && (
            <button type="button" className="action main" onClick={action.act}>
              {action.name}
            </button>
          )}
        </div>
      </section>
    );
  }
}
