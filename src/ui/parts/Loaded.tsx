import { Component, Suspense, type ReactNode } from 'react';
import { Button } from './Button.js';

interface Props {
  /** What is to be loaded, as it is called in a sentence. */
  readonly what: string;
  /** Shown while it is being loaded. */
  readonly fallback?: ReactNode;
  /** What is shown hangs on this: where it could not be shown it is tried again when this is another one. */
  readonly of?: unknown;
  readonly children: ReactNode;
}

/** A fault that goes by itself so soon is not said, ms: the plan is a moment ahead of what was worked out of it. */
const A_MOMENT = 1000;

/** What is loaded when it is first looked at; says so where it cannot be had or shown, and lets the rest go on. */
export class Loaded extends Component<Props, { fault: string | null; said: boolean }> {
  override state = { fault: null as string | null, said: this.props.of === undefined };
  private timer: ReturnType<typeof setTimeout> | undefined;

  static getDerivedStateFromError(error: unknown) {
    return { fault: error instanceof Error ? error.message : String(error) };
  }

  override componentDidCatch() {
    if (this.props.of === undefined) return;
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.setState({ said: true }), A_MOMENT);
  }

  override componentDidUpdate(before: Props) {
    if (this.state.fault === null || before.of === this.props.of) return;
    clearTimeout(this.timer);
    this.setState({ fault: null, said: false });
  }

  override componentWillUnmount() {
    clearTimeout(this.timer);
  }

  override render() {
    if (this.state.fault === null)
      return <Suspense fallback={this.props.fallback ?? null}>{this.props.children}</Suspense>;
    if (!this.state.said) return this.props.fallback ?? null;
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
