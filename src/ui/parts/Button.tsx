/** A button with words or a sign on it; in a form it submits only where it says so. */
import type { ComponentProps } from 'react';

export interface ButtonProps extends ComponentProps<'button'> {
  /** The one thing to do here. */
  readonly strong?: boolean;
}

export const Button = ({
  strong = false,
  className = '',
  type = 'button',
  ...rest
}: ButtonProps) => (
  <button
    type={type}
    className={`button ${strong ? 'button-strong' : ''} ${className}`.replace(/ +/g, ' ').trim()}
    {...rest}
  />
);
