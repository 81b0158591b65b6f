import { Component, Suspense, type ReactNode } from 'react';
import { Button } from './Button.js';

interface Props {
  /** What is to be loaded, as it is called in a sentence. */
  readonly what: string;
  /** Shown while it is being loaded. */
  readonly fallback?: ReactNode;
  readonly children: ReactNode;
}

/** What is loaded when it is first looked at; says so where it cannot be had, and lets the rest go on. */
export class Loaded extends Component<Props, { fault: string | null }> {
  override state = { fault: null as string | null };

  static getDerivedStateFromError(error: unknown) {
    return { fault: error instanceof Error ? error.message : String(error) };
  }

  override render() {
    if (this.state.fault === null)
      return <Suspense fallback={this.props.fallback ?? null}>{this.props.children}</Suspense>;
    const away = /import|fetch|module|load/i.test(this.state.fault);
    return (
      <div role="alert" className="border-stop m-3 border p-3">
        <p className="font-semibold">
          {this.props.what} cannot be shown
          {away ? ': the server does not answer' : `: ${this.state.fault}`}.
        </p>
        <p className="my-1">What you changed is kept; loading the page anew tries again.</p>
        <Button onClick={() => location.reload()}>Load anew</Button>
      </div>
    );
  }
}
