import { Component, type ReactNode } from 'react';
import { Broken } from './NotThere';

interface Place {
  /** Where one is; going elsewhere leaves what broke behind. */
  at: string;
}

/** Keeps what breaks within it from taking along what stands round it. React tells the browser's console what broke. */
export class Boundary extends Component<Place & { children: ReactNode }, Place & { broken: boolean }> {
  state = { at: this.props.at, broken: false };

  static getDerivedStateFromError = () => ({ broken: true });

  static getDerivedStateFromProps = ({ at }: Place, state: Place) => (at === state.at ? null : { at, broken: false });

  render() {
    return this.state.broken ? <Broken /> : this.props.children;
  }
}
