import styled from 'styled-components';

/** Opens the parts of a kit under its line. */
export const Fold = styled.button`
  border: 0; background: none; padding: 0; min-height: 24px; margin-top: 5px; cursor: pointer; color: var(--indigo); font-size: 12.5px; text-align: left;
`;
