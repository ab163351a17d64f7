import { Component, type ReactNode } from 'react';

interface OwnTroubleProps {
  /** What stands in its place when something in it breaks. */
  readonly instead: ReactNode;
  /** Something new here is tried again. */
  readonly tryAgainWith: unknown;
  readonly children: ReactNode;
}

/** Keeps what breaks inside from taking the rest of the screen along. */
export class OwnTrouble extends Component<
  OwnTroubleProps,
  { readonly brokeWith: unknown; readonly isBroken: boolean }
> {
  override state = { brokeWith: null as unknown, isBroken: false };

  override componentDidCatch(): void {
    this.setState({ brokeWith: this.props.tryAgainWith, isBroken: true });
  }

  static getDerivedStateFromError(): { isBroken: boolean } {
    return { isBroken: true };
  }

  override componentDidUpdate(): void {
    const { isBroken, brokeWith } = this.state;
    if (isBroken && brokeWith !== null && brokeWith !== this.props.tryAgainWith)
      this.setState({ isBroken: false, brokeWith: null });
  }

  override render(): ReactNode {
    return this.state.isBroken ? this.props.instead : this.props.children;
  }
}
