import { Button as AriaButton, type ButtonProps as AriaProps } from 'react-aria-components';
import { Link, type LinkProps } from 'react-router';
import styled, { css } from 'styled-components';
import { forFingers } from './box.ts';

type Look = 'plain' | 'go' | 'ghost' | 'danger' | 'icon';

const looks = {
  plain: css`border-color: var(--line); background: var(--sheet); color: var(--ink);`,
  go: css`border-color: var(--walnut); background: var(--walnut); color: var(--on-dark);`,
  ghost: css`border-color: transparent; background: transparent; color: var(--indigo);`,
  icon: css`border-color: transparent; background: transparent; color: var(--indigo); padding: 8px;`,
  danger: css`border-color: var(--short); background: var(--sheet); color: var(--short-ink);`,
};
const shape = css<{ $look?: Look }>`
  white-space: nowrap; display: inline-flex; align-items: center; justify-content: center; gap: 8px; border: 1px solid;
  padding: 7px 13px; border-radius: 3px; font: 600 13.5px var(--text); cursor: pointer; text-decoration: none; min-height: 34px;
  ${({ $look }) => looks[$look ?? 'plain']}
  ${forFingers}
  &:hover { filter: brightness(0.97); }
  &[data-pressed] { transform: translateY(1px); }
  &[data-disabled] { opacity: 0.55; cursor: default; }
  @media print { display: none; }
`;

const Styled = styled(AriaButton)<{ $look?: Look }>`${shape}`;
const StyledLink = styled(Link)<{ $look?: Look }>`${shape}`;

export interface ButtonProps extends AriaProps {
  look?: Look;
  /** Shows that the press is being carried out; a second press meanwhile does nothing. */
  busy?: boolean;
}

/** `go` is the one main action of a screen. */
export function Button({ look = 'plain', busy = false, ...props }: ButtonProps) {
  // A disabled button would lose the focus while it is carried out.
  return <Styled {...props} $look={look} isPending={busy} isDisabled={!busy && (props.isDisabled ?? false)} />;
}

export function LinkButton({ look = 'plain', ...props }: LinkProps & { look?: Look }) {
  return <StyledLink {...props} $look={look} />;
}
